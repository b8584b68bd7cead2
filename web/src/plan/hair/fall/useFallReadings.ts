import { useEffect, useMemo, useState } from "react";
import { useKnownCatalogue } from "../../../api/queries";
import type { Drape, Fitting, NoticeFact } from "../../../api/types";
import type { Reading } from "../../../head";

type Make = (
  facts: readonly NoticeFact[],
  fitting: Fitting | undefined,
  drape: Drape | undefined,
) => Reading[];

const none: readonly Reading[] = [];

/** The head coloured by fit, load and landing, where that is wanted; it loads once it is. */
export function useFallReadings(
  wanted: boolean,
  fitting: Fitting | undefined,
  drape: Drape | undefined,
): readonly Reading[] {
  const facts = useKnownCatalogue().notices;
  const [make, setMake] = useState<Make>();
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    void import("./readings").then(
      ({ fallReadings }) => {
        if (!gone) setMake(() => fallReadings);
      },
      () => undefined, // asked for again with the next step
    );
    return () => {
      gone = true;
    };
  }, [wanted]);
  return useMemo(
    () => (wanted && make ? make(facts, fitting, drape) : none),
    [wanted, make, facts, fitting, drape],
  );
}
