import { useEffect, useRef } from "react";
import { elsewhere } from "../lib/keys";
import { usePreferences } from "../lib/preferences";

/** The keys: Space and a pedal for done, Backspace and Page Up to take back, R for the row. */
export function usePedal(press: () => void, undo: () => void, closeRow: () => void, covered: boolean) {
  const latest = useRef({ press, undo, closeRow });
  useEffect(() => {
    latest.current = { press, undo, closeRow };
  });
  useEffect(() => {
    if (covered) return undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || elsewhere(event.target)) return;
      const { target } = event;
      const onButton = target instanceof HTMLElement && target.closest("button, a, [data-section]") !== null;
      const act = {
        " ": onButton ? undefined : latest.current.press,
        PageDown: latest.current.press,
        Backspace: latest.current.undo,
        PageUp: latest.current.undo,
        r: usePreferences.getState().letterKeys ? latest.current.closeRow : undefined,
      }[event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [covered]);
}
