import type { Catalogue, PlanInput } from "../../api/types";

/** Whether the tapes of a plan are other than those of a head size: nobody measured that. */
export const isMeasured = (input: PlanInput, catalogue: Catalogue) =>
  !catalogue.heads.some((h) => JSON.stringify(h.tapes) === JSON.stringify(input.head));
