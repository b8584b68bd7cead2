import { afterEach, describe, expect, it } from "vitest";
import { localDay, setZone } from "./localDay";
import {
  area,
  clockOf,
  comb,
  hours,
  length,
  moneyIn,
  offset,
  readNumber,
  setExponent,
  weight,
  writeInches,
} from "./units";

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

// ISO 4217, the list of currencies: rupiah and forint have two digits by it, the yen none, the Tunisian
// dinar three, whatever a browser leaves out when it writes them.
describe("money by the currency's own exponent", () => {
  const digits = (text: string) => text.replace(/\D/g, "");
  it.each([
    ["IDR", 2, 1_250_075, "1250075"],
    ["HUF", 2, 450_050, "450050"],
    ["JPY", 0, 12_500, "12500"],
    ["TND", 3, 12_345, "12345"],
  ])("writes %s", (currency, exponent, minor, written) => {
    setExponent(currency, exponent);
    expect(digits(moneyIn(currency)(minor))).toBe(written);
  });
});

describe("days and times of the studio", () => {
  afterEach(() => setZone(undefined));
  // Zones by the IANA database: Auckland is 13 hours ahead of UTC in January, Honolulu 10 behind.
  const late = new Date("2027-01-15T11:30:00Z");

  it("are those of its zone, wherever the page is read", () => {
    setZone("Pacific/Auckland");
    expect([localDay(late), clockOf(late)]).toEqual(["2027-01-16", "00:30"]);
    setZone("Pacific/Honolulu");
    expect([localDay(late), clockOf(late)]).toEqual(["2027-01-15", "01:30"]);
  });

  it("are the device's where a zone is not known", () => {
    const here = localDay(late);
    setZone("Nowhere/At_All");
    expect(localDay(late)).toBe(here);
  });
});
