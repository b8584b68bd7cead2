// @vitest-environment jsdom
import { act } from "react";
import { createRoot } from "react-dom/client";
import { expect, it } from "vitest";
import { useKeys } from "./keys";
import { localDay } from "./localDay";
import { usePreferences } from "./preferences";

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

it("hears keys of one letter unless they are switched off; ? lists them all the same", () => {
  const heard: string[] = [];
  const hear = (key: string) => heard.push(key);
  function Page() {
    useKeys(hear);
    return null;
  }
  const root = createRoot(document.createElement("div"));
  act(() => root.render(<Page />));
  const press = (key: string) =>
    act(() => void document.body.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true })));
  press("h");
  act(() => usePreferences.setState({ letterKeys: false }));
  press("h");
  press("1");
  press("?");
  expect(heard).toEqual(["h", "?"]);
  act(() => usePreferences.setState({ letterKeys: true }));
  press("w");
  expect(heard).toEqual(["h", "?", "w"]);
  act(() => root.unmount());
});

it("takes the day from the calendar here, late in the evening too", () => {
  expect(localDay(new Date(2026, 0, 31, 23, 59))).toBe("2026-01-31");
  expect(localDay(new Date(2026, 10, 1, 0, 1))).toBe("2026-11-01");
});
