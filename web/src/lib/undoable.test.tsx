// @vitest-environment jsdom
import { act, cleanup, fireEvent, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useUndoable } from "./undoable";

/** The hook at work in a page, and the latest of what it gives. */
function begin() {
  let noted = "";
  const note = () => noted;
  const { result } = renderHook(() => useUndoable<number, string>(0, note));
  const now = () => result.current;
  return {
    now,
    note: (text: string) => (noted = text),
    set: (group: string | null, value: number) => act(() => now().change(group, () => value)),
    key: (init: KeyboardEventInit) => fireEvent.keyDown(window, init),
  };
}

afterEach(cleanup);
beforeEach(() => void vi.useFakeTimers({ toFake: ["Date"] }));

describe("undo and redo", () => {
  it("goes back and forth through every choice", () => {
    const page = begin();
    for (const v of [1, 2, 3]) page.set(null, v);
    act(() => page.now().undo());
    act(() => page.now().undo());
    expect(page.now().draft).toBe(1);
    act(() => page.now().redo());
    expect(page.now().draft).toBe(2);
    page.set(null, 9);
    expect(page.now().canRedo).toBe(false);
    for (let n = 0; n < 9; n++) act(() => page.now().undo());
    expect(page.now().draft).toBe(0);
    expect(page.now().canUndo).toBe(false);
  });

  it("takes one movement of a slider as one step", () => {
    const page = begin();
    for (let v = 1; v <= 20; v++) {
      page.set("size", v);
      vi.advanceTimersByTime(100);
    }
    page.set("count", 30);
    act(() => page.now().undo());
    expect(page.now().draft).toBe(20);
    act(() => page.now().undo());
    expect(page.now().draft).toBe(0);
    page.set("size", 1);
    vi.advanceTimersByTime(2000);
    page.set("size", 2);
    act(() => page.now().undo());
    expect(page.now().draft).toBe(1);
  });

  it("takes what is typed in one box as one step, with a pause for the fraction", () => {
    const page = begin();
    const box = document.body.appendChild(document.createElement("input"));
    box.focus();
    page.set("size", 3);
    vi.advanceTimersByTime(2000);
    page.set("size", 0.75);
    vi.advanceTimersByTime(9000);
    page.set("size", 1);
    act(() => page.now().undo());
    expect(page.now().draft).toBe(0.75);
    act(() => page.now().undo());
    expect(page.now().draft).toBe(0);
    box.remove();
  });

  it("remembers what was noted before the movement began", () => {
    const page = begin();
    page.note("96 sections");
    page.set("size", 1);
    page.note("110 sections");
    page.set("size", 2);
    expect(page.now().before).toBe("96 sections");
    page.set(null, 3);
    expect(page.now().before).toBe("110 sections");
  });

  it("hears Ctrl+Z and Ctrl+Shift+Z", () => {
    const page = begin();
    page.set(null, 1);
    page.key({ key: "z", ctrlKey: true });
    expect(page.now().draft).toBe(0);
    page.key({ key: "Z", ctrlKey: true, shiftKey: true });
    expect(page.now().draft).toBe(1);
    page.key({ key: "z" });
    expect(page.now().draft).toBe(1);
  });

  it("leaves Ctrl+Z to the field one types in, and does nothing behind a dialog", () => {
    const page = begin();
    page.set(null, 1);
    const press = (target: Element) => fireEvent.keyDown(target, { key: "z", ctrlKey: true });
    const field = document.body.appendChild(document.createElement("input"));
    press(field);
    expect(page.now().draft).toBe(1);
    const mask = document.body.appendChild(document.createElement("div"));
    mask.className = "ant-modal-mask";
    press(document.body);
    expect(page.now().draft).toBe(1);
    mask.remove();
    press(document.body);
    expect(page.now().draft).toBe(0);
    field.remove();
  });
});
