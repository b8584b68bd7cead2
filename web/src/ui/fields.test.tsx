// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { CountField, FieldErrors, LengthField, SizeSlider } from "./fields";
import { usePreferences } from "../lib/preferences";

const user = userEvent.setup();

/** A length on a page, and its field. */
function page(start: number, empty = false) {
  let mm = start;
  let set: (mm: number) => void = () => undefined;
  function Page() {
    const [value, setValue] = useState(start);
    mm = value;
    set = setValue;
    return (
      <FieldErrors value={value > 900 ? { tape: "Between 44 cm and 68 cm would fit." } : {}}>
        <LengthField label="Around the head" path="tape" empty={empty} mm={value} onChange={setValue} />
      </FieldErrors>
    );
  }
  render(<Page />);
  const input = screen.getByRole<HTMLInputElement>("textbox", { name: "Around the head" });
  return {
    input,
    mm: () => mm,
    put: (v: number) => act(() => set(v)),
    /** Types a text in place of what stands there. */
    type: async (text: string) => {
      await user.tripleClick(input);
      await user.keyboard(text);
    },
  };
}

beforeEach(() => usePreferences.setState({ unit: "in" }));
afterEach(() => {
  cleanup();
  localStorage.clear();
});

describe("a length as it is typed", () => {
  it.each([
    ["23 1/4", 23.25],
    ["14¾", 14.75],
    ["13.25", 13.25],
    ["12,5", 12.5],
  ])("reads %s and leaves it alone while it is typed", async (text, inches) => {
    const p = page(558.8);
    await p.type(text);
    expect(p.input.value).toBe(text);
    expect(p.mm()).toBeCloseTo(inches * 25.4, 9);
  });

  it("writes it tidily once it is left", async () => {
    const p = page(558.8);
    await p.type("23 1/4");
    await user.tab();
    expect(p.input.value).toBe("23¼");
  });

  it("keeps the length when what stands there is none", async () => {
    const p = page(558.8);
    await p.type("2x");
    expect(p.mm()).toBeCloseTo(2 * 25.4, 9); // the 2 was read, the x was not
    await user.tab();
    expect(p.input.value).toBe("2");
  });

  it("follows a length changed elsewhere, as by undo", async () => {
    const p = page(558.8);
    await p.type("23");
    p.put(508);
    expect(p.input.value).toBe("20");
  });

  it("steps by an eighth of an inch or a millimetre", async () => {
    const p = page(508);
    await user.click(p.input);
    await user.keyboard("{ArrowUp}{ArrowUp}{ArrowDown}");
    expect(p.mm()).toBeCloseTo(20.125 * 25.4, 9);
    void act(() => usePreferences.setState({ unit: "cm" }));
    expect(p.input.value).toBe("51.1");
    await user.keyboard("{ArrowUp}");
    expect(p.mm()).toBeCloseTo(512, 9);
  });

  it("shows a length not taken as an empty field, and empties it again", async () => {
    const p = page(0, true);
    expect(p.input.value).toBe("");
    await p.type("5");
    expect(p.mm()).toBeCloseTo(127, 9);
    await user.clear(p.input);
    expect(p.mm()).toBe(0);
  });

  it("says what would be right beside the field that was refused", async () => {
    const p = page(558.8);
    await p.type("234");
    expect(screen.getByRole("alert").textContent).toBe("Between 44 cm and 68 cm would fit.");
  });
});

describe("a size as it is slid", () => {
  /** A slider from a quarter of an inch to two, and its arrow keys. */
  function slider(start: number) {
    let mm = start;
    function Page() {
      const [value, setValue] = useState(start);
      mm = value;
      return <SizeSlider label="Section size" path="size" min={6} max={51} mm={value} onChange={setValue} />;
    }
    render(<Page />);
    const handle = screen.getByRole<HTMLInputElement>("slider", { name: "Section size" });
    return {
      mm: () => mm,
      says: () => handle.getAttribute("aria-valuetext"),
      /** An arrow key, as the browser's own control answers it: one step on, held by its limits. */
      press: (key: "ArrowLeft" | "ArrowRight") => {
        const to = Number(handle.value) + (key === "ArrowRight" ? 1 : -1);
        fireEvent.change(handle, { target: { value: String(to) } });
      },
    };
  }

  it.each([
    ["in", 25.4 / 8],
    ["cm", 1],
  ] as const)("moves on by one step with every key, in %s", (unit, step) => {
    usePreferences.setState({ unit });
    const s = slider(12 * step);
    for (let n = 13; n <= 16; n++) {
      s.press("ArrowRight");
      expect(s.mm()).toBeCloseTo(n * step, 9);
    }
    for (let n = 15; n >= 7; n--) {
      s.press("ArrowLeft");
      expect(s.mm()).toBeCloseTo(n * step, 9);
    }
    expect(s.says()).toBe(unit === "in" ? "⅞ in" : "0.7 cm");
  });

  it("takes a size between the steps to the next one, and ends at its limits", () => {
    const s = slider(20); // a little over ¾ in
    s.press("ArrowRight");
    expect(s.mm()).toBeCloseTo((7 / 8) * 25.4, 9);
    for (let n = 0; n < 20; n++) s.press("ArrowRight");
    expect(s.mm()).toBeCloseTo(2 * 25.4, 9);
    for (let n = 0; n < 20; n++) s.press("ArrowLeft");
    expect(s.mm()).toBeCloseTo(25.4 / 4, 9);
  });
});

it("steps a count up from nothing, and down to it again", () => {
  const changed = vi.fn();
  const field = (value: number) => (
    <CountField label="Loose" path="loose" value={value} min={0} max={9} unsaid="0" onChange={changed} />
  );
  const { rerender } = render(field(0));
  fireEvent.click(screen.getByLabelText("One more: Loose"));
  expect(changed).toHaveBeenLastCalledWith(1);
  rerender(field(1));
  fireEvent.click(screen.getByLabelText("One less: Loose"));
  expect(changed).toHaveBeenLastCalledWith(0);
});
