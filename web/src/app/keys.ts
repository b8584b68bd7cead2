import { useEffect } from "react";

/** Hears keys pressed anywhere but where one types or answers a dialog. */
export function useKeys(hear: (key: string) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target instanceof HTMLElement && target.closest("input, textarea, [role=combobox], [role=dialog]"))
        return;
      hear(event.key);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [hear]);
}
