import type { Remains } from "../api/types";

/** Where something that was deleted may still stand, in sentences; none where it is gone. */
export function remainsText({ log, copies }: Remains): string[] {
  const out: string[] = [];
  if (log)
    out.push(
      "Somebody reads in the studio's file just now: what was deleted goes from it as soon as they are done.",
    );
  if (copies.length > 0)
    out.push(
      `Copies that were kept beside the studio's file still hold it: ${copies.join(", ")}. Delete those that you need no more; other copies you made, too.`,
    );
  return out;
}
