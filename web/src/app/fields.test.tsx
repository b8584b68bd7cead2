// @vitest-environment jsdom
import { act, useState } from "react";
import { createRoot } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { FieldErrors, LengthField, SizeSlider } from "./fields";
import { usePreferences } from "./preferences";

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

/** A length on a page, its field, and ways to use it as a person does. */
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
  const place = document.body.appendChild(document.createElement("div"));
  const root = createRoot(place);
  act(() => root.render(<Page />));
  const input = place.querySelector("input");
  if (!input) throw new Error("no field");
  const write = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
  return {
    input,
    place,
    mm: () => mm,
    put: (v: number) => act(() => set(v)),
    /** Types a text letter by letter, as it stands in the field after each. */
    type: (text: string) => {
      for (let n = 1; n <= text.length; n++)
        act(() => {
          write?.call(input, text.slice(0, n));
          input.dispatchEvent(new Event("input", { bubbles: true }));
        });
    },
    leave: () => act(() => void input.dispatchEvent(new FocusEvent("focusout", { bubbles: true }))),
    key: (key: string) =>
      act(
        () =>
          void input.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true })),
      ),
    end: () => {
      act(() => root.unmount());
      place.remove();
    },
  };
}

beforeEach(() => usePreferences.setState({ unit: "in" }));
afterEach(() => localStorage.clear());

describe("a length as it is typed", () => {
  it.each([
    ["23 1/4", 23.25],
    ["14¾", 14.75],
    ["13.25", 13.25],
    ["12,5", 12.5],
  ])("reads %s and leaves it alone while it is typed", (text, inches) => {
    const p = page(558.8);
    p.type(text);
    expect(p.input.value).toBe(text);
    expect(p.mm()).toBeCloseTo(inches * 25.4, 9);
    p.end();
  });

  it("writes it tidily once it is left", () => {
    const p = page(558.8);
    p.type("23 1/4");
    p.leave();
    expect(p.input.value).toBe("23¼");
    p.end();
  });

  it("keeps the length when what stands there is none", () => {
    const p = page(558.8);
    p.type("2x");
    expect(p.mm()).toBeCloseTo(2 * 25.4, 9); // the 2 was read, the x was not
    expect(
      p.place.querySelector(".ant-input-status-error, .ant-input-affix-wrapper-status-error"),
    ).not.toBeNull();
    p.leave();
    expect(p.input.value).toBe("2");
    p.end();
  });

  it("follows a length changed elsewhere, as by undo", () => {
    const p = page(558.8);
    p.type("23");
    p.put(508);
    expect(p.input.value).toBe("20");
    p.end();
  });

  it("steps by an eighth of an inch or a millimetre", () => {
    const p = page(508);
    p.key("ArrowUp");
    p.key("ArrowUp");
    p.key("ArrowDown");
    expect(p.mm()).toBeCloseTo(20.125 * 25.4, 9);
    act(() => usePreferences.setState({ unit: "cm" }));
    expect(p.input.value).toBe("51.1");
    p.key("ArrowUp");
    expect(p.mm()).toBeCloseTo(512, 9);
    p.end();
  });

  it("shows a length not taken as an empty field, and empties it again", () => {
    const p = page(0, true);
    expect(p.input.value).toBe("");
    p.type("5");
    expect(p.mm()).toBeCloseTo(127, 9);
    p.type(" ");
    expect(p.mm()).toBe(0);
    p.end();
  });

  it("says what would be right beside the field that was refused", () => {
    const p = page(558.8);
    p.type("234");
    expect(p.place.querySelector("[role=alert]")?.textContent).toBe("Between 44 cm and 68 cm would fit.");
    p.end();
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
    const place = document.body.appendChild(document.createElement("div"));
    const root = createRoot(place);
    act(() => root.render(<Page />));
    const handle = place.querySelector("[role=slider]");
    return {
      mm: () => mm,
      says: () => handle?.getAttribute("aria-valuetext"),
      press: (key: "ArrowLeft" | "ArrowRight") =>
        act(() => {
          const keyCode = key === "ArrowLeft" ? 37 : 39; // what the slider listens for
          handle?.dispatchEvent(
            new KeyboardEvent("keydown", { key, keyCode, which: keyCode, bubbles: true }),
          );
        }),
      end: () => {
        act(() => root.unmount());
        place.remove();
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
    s.end();
  });

  it("takes a size between the steps to the next one, and ends at its limits", () => {
    const s = slider(20); // a little over ¾ in
    s.press("ArrowRight");
    expect(s.mm()).toBeCloseTo((7 / 8) * 25.4, 9);
    for (let n = 0; n < 20; n++) s.press("ArrowRight");
    expect(s.mm()).toBeCloseTo(2 * 25.4, 9);
    for (let n = 0; n < 20; n++) s.press("ArrowLeft");
    expect(s.mm()).toBeCloseTo(25.4 / 4, 9);
    s.end();
  });
});
