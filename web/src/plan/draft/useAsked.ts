import { useEffect } from "react";
import { useWorn } from "./worn";

/** While a part is open the head shows what it is about. */
export function useAsked(what: string) {
  const set = useWorn((w) => w.set);
  useEffect(() => {
    set({ asked: what });
    return () => set({ asked: undefined, pointed: undefined });
  }, [set, what]);
}
