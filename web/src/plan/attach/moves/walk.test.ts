import { describe, expect, it } from "vitest";
import { moments } from "./walk";

const clip = (figure: string, first: number, last: number) => ({ figure, first, last });

describe("the pictures of a walk", () => {
  it("shows each once, moving on from the one before", () => {
    const walk = moments([
      { text: "Stretch the loop." },
      { text: "Catch it.", shows: clip("root-hitch", 0, 1) },
      { text: "Draw it through.", shows: clip("root-hitch", 1, 2) },
      { text: "Weave.", shows: clip("weave", 0, 1) },
    ]);
    expect(walk.map((m) => `${m.step} ${m.figure} ${m.still} ${m.moves ? "moves" : "stands"}`)).toEqual([
      "0 root-hitch 0 stands",
      "1 root-hitch 0 stands",
      "1 root-hitch 1 moves",
      "2 root-hitch 2 moves",
      "3 weave 0 stands",
      "3 weave 1 moves",
    ]);
    expect(walk[0]?.own).toBe(false);
  });

  it("goes backward where a piece comes off", () => {
    const walk = moments([
      { text: "Draw the tail back.", shows: clip("track-hitch", 4, 2) },
      { text: "Draw it out.", shows: clip("track-hitch", 2, 1) },
      { text: "Undo the cornrows." },
    ]);
    expect(walk.map((m) => m.still)).toEqual([4, 3, 2, 1, 1]);
    expect(walk.map((m) => m.moves)).toEqual([false, true, true, true, false]);
    expect(walk.every((m) => m.back)).toBe(true);
  });

  it("keeps a step of one picture that stands already", () => {
    const walk = moments([
      { text: "A band.", shows: clip("banded", 0, 0) },
      { text: "Through the eye.", shows: clip("banded", 0, 0) },
    ]);
    expect(walk.map((m) => m.step)).toEqual([0, 1]);
  });

  it("has nothing to show where nothing is drawn", () => {
    expect(moments([{ text: "Cut below the mark." }])).toEqual([]);
  });
});
