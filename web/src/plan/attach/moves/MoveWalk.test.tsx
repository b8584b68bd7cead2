// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Method, Motion, Step } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { MoveWalk } from "./MoveWalk";

interface Asked {
  figure: string;
  still: number;
  left: boolean;
  back: boolean;
}

const asked: Asked[] = [];
const line = (d: string) => ({ d, line: "#2a231c", width: 2, opacity: 1 });
const motion = (still: number): Motion => ({
  stage: [line("M0 0")],
  way: still === 0 ? [] : [[line("M1 1")], [line("M2 2")]],
  still: [line(`M${still} 9`)],
  glass: [],
  front: [line("M7 7")],
});

vi.mock("../../../api/client", async (original) => {
  const actual = await original<typeof import("../../../api/client")>();
  return {
    ...actual,
    server: {
      ...actual.server,
      figure: (figure: string) =>
        Promise.resolve({
          title: figure,
          stills: [0, 1, 2].map((i) => ({
            says: `${figure} ${i}`,
            holds: i === 2 ? ["piece through loop"] : [],
          })),
        }),
      motion: (figure: string, still: number, how: { left: boolean; back: boolean }) => {
        asked.push({ figure, still, ...how });
        return Promise.resolve(motion(still));
      },
    },
  };
});

const on: Step[] = [
  { text: "Stretch the loop." },
  {
    text: "Draw it through {length} down.",
    lengthsMm: { length: 50.8 },
    shows: { figure: "hitch", first: 0, last: 1 },
  },
  { text: "Tighten.", shows: { figure: "hitch", first: 1, last: 2 } },
];
const off: Step[] = [
  { text: "Draw the tail back.", shows: { figure: "hitch", first: 2, last: 1 } },
  { text: "Draw it out.", shows: { figure: "hitch", first: 1, last: 0 } },
];
const method = { mistake: "Pulled too tight.", mend: "Loosen it now.", wrong: "tight" } as Method;

function walk(onClose = vi.fn()) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MoveWalk title="Hitch" method={method} on={on} off={off} onClose={onClose} />
    </QueryClientProvider>,
  );
  return onClose;
}

const still = (motionless: boolean) =>
  vi.stubGlobal("matchMedia", (query: string) => ({
    matches: motionless && query.includes("reduced-motion"),
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }));

const picture = async (name: string) => {
  const drawing = await screen.findByLabelText(name, { selector: "[role=img]" });
  await waitFor(() => expect(drawing.dataset.stands).toBe("true"));
  return drawing;
};
/** Presses by what is read: asking for roles is slow here. */
const press = (text: string) => fireEvent.click(screen.getByText(text, { selector: "button *, label *" }));
const key = (name: string) => act(() => void fireEvent.keyDown(window, { key: name }));

beforeEach(() => {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  still(true);
  asked.length = 0;
  usePreferences.getState().set({ leftHanded: false, unit: "in" });
});

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe("walking through a method", () => {
  it("shows a step with its lengths, its picture and what lies where", async () => {
    walk();
    await picture("hitch 0");
    expect(screen.getByText("Stretch the loop.")).toBeTruthy();
    press("Next");
    expect(screen.getByText("2 in").tagName).toBe("STRONG");
    press("Next");
    await picture("hitch 1");
    press("Next");
    await picture("hitch 2");
    expect(screen.getByText("In the picture: piece through loop")).toBeTruthy();
    expect(screen.getByText(/Step 3 of 3 · picture 4 of 4/)).toBeTruthy();
    press("From the start");
    await picture("hitch 0");
  });

  it("turns by keys, and not past its ends", async () => {
    walk();
    await picture("hitch 0");
    key("ArrowLeft");
    expect(screen.getByText(/picture 1 of 4/)).toBeTruthy();
    key("ArrowRight");
    key("PageDown");
    expect(screen.getByText(/picture 3 of 4/)).toBeTruthy();
    await picture("hitch 1");
    key("PageUp");
    expect(screen.getByText(/picture 2 of 4/)).toBeTruthy();
    key("ArrowRight");
    key("ArrowRight");
    key("ArrowRight");
    expect(screen.getByText(/picture 4 of 4/)).toBeTruthy();
    key("Home");
    expect(screen.getByText(/picture 1 of 4/)).toBeTruthy();
    // Keys of one letter do nothing where they are switched off.
    usePreferences.getState().set({ letterKeys: false });
    key("p");
    expect(screen.getByText("Play all")).toBeTruthy();
    usePreferences.getState().set({ letterKeys: true });
    key("p");
    expect(screen.getByText("Stop")).toBeTruthy();
  });

  it("comes the way to a picture, and stands at once where motion is unwelcome", async () => {
    walk();
    await picture("hitch 0");
    key("ArrowRight");
    key("ArrowRight");
    const quiet = await picture("hitch 1");
    expect(quiet.innerHTML).toContain("M1 9");
    expect(quiet.innerHTML).toContain("M7 7");
    key("ArrowLeft");
    await picture("hitch 0");
    still(false);
    key("ArrowRight");
    const moving = await screen.findByRole("img", { name: "hitch 1" });
    expect(moving.dataset.stands).toBe("false");
    expect(moving.innerHTML).toMatch(/M1 1|M2 2/);
    expect(moving.innerHTML).not.toContain("M7 7");
    await picture("hitch 1");
    // Seen again, it moves once more; going back it does not.
    key("r");
    expect((await screen.findByRole("img", { name: "hitch 1" })).dataset.stands).toBe("false");
    key("ArrowLeft");
    expect((await screen.findByRole("img", { name: "hitch 0" })).dataset.stands).toBe("true");
  });

  it("plays to the end and stops there", async () => {
    walk();
    await picture("hitch 0");
    vi.useFakeTimers();
    key("p");
    expect(screen.getByText("Stop")).toBeTruthy();
    for (let i = 0; i < 12; i++) await act(() => vi.advanceTimersByTimeAsync(800));
    expect(screen.getByText(/picture 4 of 4/)).toBeTruthy();
    expect(screen.getByText("Play all")).toBeTruthy();
    // From the end it plays from the start.
    key("p");
    expect(screen.getByText(/picture 1 of 4/)).toBeTruthy();
  });

  it("is drawn for the left hand where that is wished", async () => {
    walk();
    await picture("hitch 0");
    expect(asked.every((a) => !a.left)).toBe(true);
    fireEvent.click(screen.getByRole("switch", { name: /Left-handed/ }));
    await waitFor(() => expect(asked.at(-1)?.left).toBe(true));
    expect(usePreferences.getState().leftHanded).toBe(true);
  });

  it("takes off backward, and shows the mistake with its way out", async () => {
    walk();
    await picture("hitch 0");
    press("Take off");
    await picture("hitch 2");
    expect(asked.find((a) => a.still === 2)?.back).toBe(true);
    key("ArrowRight");
    key("ArrowRight");
    await picture("hitch 0");
    expect(screen.getByText("Draw it out.")).toBeTruthy();
    press("Mistake");
    await picture("tight 0");
    expect(screen.getByText("Loosen it now.", { exact: false })).toBeTruthy();
    expect(screen.queryByText("Play all")).toBeNull();
  });

  it("is turned by a wipe and seen again by a tap", async () => {
    walk();
    const area = (await picture("hitch 0")).parentElement;
    if (!area) throw new Error("no picture");
    const wipe = (from: number, to: number) => {
      fireEvent(area, new MouseEvent("pointerdown", { bubbles: true, clientX: from }));
      fireEvent(area, new MouseEvent("pointerup", { bubbles: true, clientX: to }));
    };
    wipe(200, 60);
    expect(screen.getByText(/picture 2 of 4/)).toBeTruthy();
    wipe(60, 200);
    expect(screen.getByText(/picture 1 of 4/)).toBeTruthy();
    wipe(100, 104);
    expect(screen.getByText(/picture 1 of 4/)).toBeTruthy();
  });
});
