/** The plan as it is kept: its id, whether it is stored yet, and a way to store what was typed last. */
export interface StoredPlan {
  id: string;
  isStored: boolean;
  save: () => Promise<void>;
  /** The version that holds what was typed last; none while something is not saved. */
  savedVersion: () => number | undefined;
}
