import type { PersonPace } from "../api/types";

/** How practised someone is, in words. */
export const handNames: readonly { key: PersonPace["hand"]; name: string; help: string }[] = [
  { key: "beginner", name: "Beginner", help: "The first heads; nearly half as long again" },
  { key: "used", name: "Used to it", help: "A few heads done; a little longer" },
  { key: "practised", name: "Practised", help: "Many heads done; the times of the trade" },
  { key: "fast", name: "Fast", help: "Every day for years; a fifth quicker" },
];
