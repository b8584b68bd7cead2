/** Properties of which some may be taken back. */
export type Unsaid<T> = { [K in keyof T]?: T[K] | undefined };

/** What is said of something: properties that are undefined are left out. */
export const said = <T extends object>(of: Unsaid<T>): Partial<T> =>
  Object.fromEntries(Object.entries<unknown>(of).filter(([, value]) => value !== undefined)) as Partial<T>;
