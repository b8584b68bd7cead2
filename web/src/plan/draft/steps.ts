/** The steps of a plan, in the order people work. */
export const steps = ["head", "parting", "hair", "attach", "day"] as const;
export type Step = (typeof steps)[number];

export const stepNames: Readonly<Record<Step, string>> = {
  head: "Head",
  parting: "Parting",
  hair: "Hair",
  attach: "Attach",
  day: "Day",
};

export const isStep = (text: string | undefined): text is Step => steps.some((s) => s === text);
