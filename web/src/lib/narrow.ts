import { useSyncExternalStore } from "react";

const query = "(max-width: 700px)";

/** Whether the window is as narrow as a phone's. */
export const useNarrow = () =>
  useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query);
      list.addEventListener("change", changed);
      return () => list.removeEventListener("change", changed);
    },
    () => window.matchMedia(query).matches,
  );
