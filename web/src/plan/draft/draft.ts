import { server } from "../../api/client";
import type { PlanDocument, PlanDraft } from "../../api/types";
import type { Keeper } from "../../document/autosave";

/** What a person works on. */
export type Draft = PlanDraft;

export const draftOf = ({ title, clientId, input, variants }: PlanDocument): Draft => ({
  title,
  ...(clientId && { clientId }),
  input,
  variants,
});

export const planKind = "plan";

export const planKeeper: Keeper<Draft> = {
  kind: planKind,
  create: server.createPlan,
  save: server.savePlan,
  read: async (id) => {
    const plan = await server.plan(id);
    return { ...plan, draft: draftOf(plan) };
  },
  touches: ["plans", "clearance"],
};
