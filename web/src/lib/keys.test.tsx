// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { useKeys } from "./keys";
import { localDay } from "./localDay";
import { usePreferences } from "./preferences";

it("hears keys of one letter unless they are switched off; ? lists them all the same", async () => {
  const user = userEvent.setup();
  const heard: string[] = [];
  const hear = (key: string) => heard.push(key);
  renderHook(() => useKeys(hear));
  await user.keyboard("h");
  void act(() => usePreferences.setState({ letterKeys: false }));
  await user.keyboard("h1?");
  expect(heard).toEqual(["h", "?"]);
  void act(() => usePreferences.setState({ letterKeys: true }));
  await user.keyboard("w");
  expect(heard).toEqual(["h", "?", "w"]);
});

it("takes the day from the calendar here, late in the evening too", () => {
  expect(localDay(new Date(2026, 0, 31, 23, 59))).toBe("2026-01-31");
  expect(localDay(new Date(2026, 10, 1, 0, 1))).toBe("2026-11-01");
});
