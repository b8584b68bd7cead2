import { server } from "../api/client";
import { useChange, useHouse, useMay } from "../api/queries";
import type { HouseDocument } from "../api/types";

type Rules = HouseDocument["rules"];

/** The house rules, and the way to change some of them over the version that was read. */
export function useHouseRules() {
  const house = useHouse();
  const maySet = useMay("saveHouse");
  const save = useChange(server.saveHouse, "house");
  const { data } = house;
  const set = (update: (rules: Rules) => Rules) => {
    if (data) save.mutate({ ...data, rules: update(data.rules) });
  };
  return { house, data, maySet, save, set };
}
