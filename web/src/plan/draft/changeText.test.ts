import { describe, expect, it } from "vitest";
import { moneyIn } from "../../lib/units";
import { changeText } from "./changeText";

const money = moneyIn("EUR");

describe("a change in one line", () => {
  it.each([
    [
      { path: "", label: "Ear to ear", unit: "mm", from: "317.5", to: "320.675" },
      "Ear to ear: 12½ in → 12⅝ in",
    ],
    [{ path: "", label: "Spares", unit: "%", from: "5", to: "8" }, "Spares: 5 % → 8 %"],
    [{ path: "", label: "Price", unit: "minor", from: "600", to: "655" }, "Price: €6.00 → €6.55"],
    [
      { path: "", label: "Front pattern", unit: "", from: "grid", to: "brick" },
      "Front pattern: grid → brick",
    ],
    [{ path: "", label: "Piece", unit: "", from: "", to: "Fernhook" }, "Piece: nothing → Fernhook"],
  ] as const)("writes %o", (change, text) => expect(changeText(change, "in", money)).toBe(text));

  it("follows the reader's unit", () =>
    expect(changeText({ path: "", label: "Length", unit: "mm", from: "100", to: "125" }, "cm", money)).toBe(
      "Length: 10 cm → 12.5 cm",
    ));
});
