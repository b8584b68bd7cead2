// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Step } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { StepList } from "./StepList";

const steps: Step[] = [
  { text: "Stretch the loop." },
  {
    text: "Weave every {from} to {to}.",
    lengthsMm: { from: 25.4, to: 50.8 },
    shows: { figure: "weave", first: 0, last: 3 },
  },
];

const sources = (container: HTMLElement) =>
  [...container.querySelectorAll("img")].map((i) => i.getAttribute("src"));

afterEach(() => {
  cleanup();
  usePreferences.getState().set({ leftHanded: false, unit: "in" });
});

describe("the list of steps", () => {
  it("numbers them, with lengths in the reader's unit", () => {
    render(<StepList steps={steps} />);
    expect(screen.getAllByRole("listitem").map((li) => li.textContent)).toEqual([
      "Stretch the loop.",
      "Weave every 1 in to 2 in.",
    ]);
    cleanup();
    usePreferences.getState().set({ unit: "cm" });
    render(<StepList steps={steps} />);
    expect(screen.getByText("2.5 cm").tagName).toBe("STRONG");
    expect(screen.getByText("5.1 cm").tagName).toBe("STRONG");
  });

  it("has a picture where a step is drawn: the one it ends with", () => {
    const { container } = render(<StepList steps={steps} />);
    expect(sources(container)).toEqual(["/api/v1/figures/weave/3/picture.svg"]);
    // The words beside it say the same: it is not read out twice.
    expect(container.querySelector("img")?.getAttribute("alt")).toBe("");
  });

  it("draws for the left hand, and what comes off without tools", () => {
    usePreferences.getState().set({ leftHanded: true });
    const { container } = render(
      <StepList steps={[{ text: "Draw it out.", shows: { figure: "weave", first: 4, last: 0 } }]} />,
    );
    expect(sources(container)).toEqual(["/api/v1/figures/weave/0/picture.svg?left=true&back=true"]);
    cleanup();
    usePreferences.getState().set({ leftHanded: false });
    const right = render(
      <StepList steps={[{ text: "Draw it out.", shows: { figure: "weave", first: 4, last: 0 } }]} />,
    );
    expect(sources(right.container)).toEqual(["/api/v1/figures/weave/0/picture.svg?back=true"]);
  });

  it("is empty where there is nothing to do", () => {
    render(<StepList steps={[]} />);
    expect(screen.queryAllByRole("listitem")).toEqual([]);
  });
});
