import { createContext, useContext } from "react";
import type { Act } from "./actions";

/** Carries out an action on the plan that is open. */
export const ActContext = createContext<Act>(() => undefined);

export const useAct = () => useContext(ActContext);
