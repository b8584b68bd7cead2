// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { canHear, useAwake, useHeard, useSaid, VoiceHere } from "./senses";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe("the voice", () => {
  it("says each new text once, and hushes when it is switched off", () => {
    const said: string[] = [];
    const hush = vi.fn();
    const voice = { say: (words: string) => void said.push(words), hush };
    const wrapper = ({ children }: { children: ReactNode }) => (
      <VoiceHere value={voice}>{children}</VoiceHere>
    );
    const { rerender } = renderHook(({ words, on }) => useSaid(words, on), {
      wrapper,
      initialProps: { words: "one", on: false },
    });
    expect(said).toEqual([]);
    rerender({ words: "one", on: true });
    rerender({ words: "one", on: true });
    rerender({ words: "", on: true });
    rerender({ words: "two", on: true });
    expect(said).toEqual(["one", "two"]);
    hush.mockClear();
    rerender({ words: "two", on: false });
    expect(hush).toHaveBeenCalledOnce();
  });
});

describe("the screen", () => {
  it("stays on while work goes on, again when the page is seen again, and no longer", async () => {
    const locks: { release: () => Promise<void>; addEventListener: () => void; released: boolean }[] = [];
    const request = vi.fn(() => {
      const lock = {
        released: false,
        release() {
          this.released = true;
          return Promise.resolve();
        },
        addEventListener: () => undefined,
      };
      locks.push(lock);
      return Promise.resolve(lock);
    });
    Object.assign(navigator, { wakeLock: { request } });
    const { result, rerender } = renderHook(({ on }) => useAwake(on), { initialProps: { on: true } });
    await act(() => Promise.resolve());
    expect(result.current).toBe(true);
    document.dispatchEvent(new Event("visibilitychange"));
    expect(request).toHaveBeenCalledTimes(2);
    await act(() => Promise.resolve());
    rerender({ on: false });
    expect(locks.at(-1)?.released).toBe(true);
    Reflect.deleteProperty(navigator, "wakeLock");
    renderHook(() => useAwake(true)); // a browser without it: nothing happens
  });
});

describe("hearing", () => {
  it("does what stands for the last word known, and goes on after a silence", () => {
    vi.useFakeTimers();
    const ears: {
      onresult?: (e: unknown) => void;
      onend?: () => void;
      onstart?: () => void;
      starts: number;
    }[] = [];
    class Ear {
      starts = 0;
      onresult?: (e: unknown) => void;
      onend?: () => void;
      onstart?: () => void;
      constructor() {
        ears.push(this);
      }
      start() {
        this.starts++;
        this.onstart?.();
      }
      abort() {}
    }
    expect(canHear()).toBe(false);
    vi.stubGlobal("webkitSpeechRecognition", Ear);
    expect(canHear()).toBe(true);
    const done = vi.fn();
    const undo = vi.fn();
    const { result, unmount } = renderHook(() => useHeard({ done, undo }, true));
    expect(result.current).toBe(true);
    const hear = (...phrases: string[]) =>
      act(() => ears[0]?.onresult?.({ results: phrases.map((transcript) => [{ transcript }]) }));
    hear("this one is Done");
    expect(done).toHaveBeenCalledOnce();
    hear("this one is Done", "no, undo that");
    expect(undo).toHaveBeenCalledOnce();
    hear("nothing of ours");
    expect(done).toHaveBeenCalledOnce();
    ears[0]?.onend?.();
    vi.advanceTimersByTime(500);
    expect(ears[0]?.starts).toBe(2);
    unmount();
    ears[0]?.onend?.();
    vi.advanceTimersByTime(500);
    expect(ears[0]?.starts).toBe(2);
  });
});
