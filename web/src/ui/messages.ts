import type { MessageKind } from "../api/types";

/** The messages a studio sends around an install. */
export const messageNames: readonly { key: MessageKind; short: string; name: string; when: string }[] = [
  {
    key: "prepare",
    short: "To prepare",
    name: "What to bring, how to prepare",
    when: "Sent once it is booked",
  },
  { key: "reminder", short: "Reminder", name: "Reminder", when: "Sent a day or two before" },
  { key: "care", short: "Care", name: "Care sheet", when: "Sent when it is done" },
];
