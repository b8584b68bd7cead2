import { describe, expect, it } from "vitest";
import { area, comb, hours, length, offset, readNumber, weight, writeInches } from "./units";

describe("lengths as stylists write them", () => {
  it.each([
    ["12 1/2", 12.5],
    ["12½", 12.5],
    ["⅞", 0.875],
    ["3/4", 0.75],
    ["12,5", 12.5],
    [" 7 ", 7],
  ])("reads %s", (text, value) => expect(readNumber(text)).toBe(value));

  it.each(["", "abc", "1/0", "1 2"])("refuses %s", (text) => expect(readNumber(text)).toBeNaN());

  it("reads back every eighth it writes", () => {
    for (let n = 1; n < 200; n++) expect(readNumber(writeInches(n / 8))).toBe(n / 8);
  });

  // An inch is 25.4 mm, an ounce 28.3495 g by definition.
  it("turns areas and weights into the other units", () => {
    expect(area(25.4 * 25.4, "in")).toBe("1.00 sq in");
    expect(area(645.16, "cm")).toBe("6.5 cm²");
    expect(weight(283.495, "in")).toBe("10.0 oz");
    expect(weight(283.495, "cm")).toBe("283 g");
  });

  it("names the unit", () => {
    expect(length(317.5, "in")).toBe("12½ in");
    expect(length(317.5, "cm")).toBe("31.8 cm");
    expect(comb(28, "in")).toBe("1⅛");
    expect(comb(28.6, "cm")).toBe("2.8");
    expect(offset(14, "in")).toBe("+½");
    expect(offset(-14.4, "cm")).toBe("−1.4");
    expect(offset(-0.7, "cm")).toBe(comb(0, "cm"));
    expect(hours(426)).toBe("7 h 5 min");
    expect(hours(-25)).toBe("25 min");
  });

  // The same figures stand in the sheet's test: paper and screen say one thing.
  it.each([
    [8.5, "0.9 cm", "⅜ in"],
    [2.5, "0.3 cm", "⅛ in"],
    [64.5, "6.5 cm", "2½ in"],
    [0.4, "0 cm", "0 in"],
  ])("rounds %f mm as on paper", (mm, cm, inches) => {
    expect(length(mm, "cm")).toBe(cm);
    expect(length(mm, "in")).toBe(inches);
  });

  it.each([
    [59.6, "1 h"],
    [62.4, "1 h"],
    [62.5, "1 h 5 min"],
    [67.4, "1 h 5 min"],
  ])("rounds %f min as on paper", (minutes, text) => expect(hours(minutes)).toBe(text));
});
