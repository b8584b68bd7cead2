import { useEffect } from "react";

/** Where keys mean letters or belong to a dialog. */
const typed = "input:not([type=radio], [type=checkbox]), textarea, [role=combobox], [role=dialog]";

/** Hears keys pressed anywhere but where one types or answers a dialog. */
export function useKeys(hear: (key: string) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target instanceof HTMLElement && target.closest(typed)) return;
      hear(event.key);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [hear]);
}
