import { useEffect } from "react";
import { usePreferences } from "./preferences";

/** Where keys mean letters or belong to a dialog. */
export const typed =
  "input:not([type=radio], [type=checkbox], [type=range]), textarea, [role=combobox], [role=dialog]";

/** True while a dialog or a drawer lies over the page, whatever has the focus. */
const covered = () => document.querySelector(".ant-modal-mask, .ant-drawer-mask") !== null;

/** Whether a key pressed there is for what one types in, or for a dialog. */
export const elsewhere = (target: EventTarget | null) =>
  covered() || (target instanceof HTMLElement && target.closest(typed) !== null);

/**
 * Hears keys of one sign pressed anywhere but where one types or answers a dialog. They
 * can be switched off; "?" lists them all the same.
 */
export function useKeys(hear: (key: string) => void) {
  const on = usePreferences((p) => p.letterKeys);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || elsewhere(event.target)) return;
      if (on || event.key === "?") hear(event.key);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [hear, on]);
}
