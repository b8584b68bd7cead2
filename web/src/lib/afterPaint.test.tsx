// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useAfterPaint } from "./afterPaint";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const page = () => renderHook(({ value }) => useAfterPaint(value), { initialProps: { value: 1 } });

test("a value follows once the frame with it was painted", () => {
  const { result, rerender } = page();
  expect(result.current).toBe(1);
  rerender({ value: 2 });
  expect(result.current).toBe(1);
  act(() => void vi.advanceTimersByTime(40)); // a frame, and what is put off until it is painted
  expect(result.current).toBe(2);
});

test("of several values in one frame only the last follows", () => {
  const { result, rerender } = page();
  rerender({ value: 2 });
  rerender({ value: 3 });
  act(() => void vi.advanceTimersByTime(40));
  expect(result.current).toBe(3);
});

test("a page that is not painted follows all the same", () => {
  vi.stubGlobal("requestAnimationFrame", () => 0);
  const { result, rerender } = page();
  rerender({ value: 2 });
  act(() => void vi.advanceTimersByTime(50));
  expect(result.current).toBe(1);
  act(() => void vi.advanceTimersByTime(100));
  expect(result.current).toBe(2);
  vi.unstubAllGlobals();
});
