import { describe, expect, it } from "vitest";
import type { Month } from "../api/types";
import { addDays, addMonths, entriesOf, lanes, mondayOf, monthDays, weekDays } from "./entries";

describe("the days of a calendar", () => {
  it("is made of whole weeks from Monday, through leap years and turns of the year", () => {
    for (const on of ["2028-02-29", "2026-12-31", "2027-01-01", "2027-03-28"]) {
      const days = monthDays(on);
      expect(days.length % 7).toBe(0);
      expect(new Date(`${days[0] ?? ""}T12:00:00`).getDay()).toBe(1);
      expect(days).toContain(on);
      expect(new Set(days).size).toBe(days.length);
      expect(weekDays(on)).toContain(on);
    }
    expect(addDays("2028-02-28", 1)).toBe("2028-02-29");
    expect(addMonths("2027-01-31", 1)).toBe("2027-02-01");
    expect(mondayOf("2026-11-29")).toBe("2026-11-23");
  });
});

const month: Month = {
  today: "2027-03-27",
  busy: [{ personId: "o", title: "Away", from: "2027-03-27T20:00", to: "2027-03-29T00:00" }],
  bookings: [
    {
      id: "b",
      planId: "p",
      by: "Odalys",
      at: "2027-03-01T10:00:00Z",
      booked: {
        schema: 1,
        title: "Plan",
        client: "Juno",
        zone: "",
        pieces: 60,
        sittings: [
          {
            on: "2027-03-27",
            at: "22:00",
            minutes: 240,
            people: ["o"],
            names: ["Odalys"],
            chair: false,
            does: "Attach",
          },
        ],
        errands: [{ on: "2027-03-27", title: "Wash" }],
      },
    },
  ],
};

describe("entries", () => {
  it("puts what has no time first and splits what lasts for days", () => {
    const days = entriesOf(month, [{ id: "o", name: "Odalys", role: "owner", hand: "fast", ownHead: 1.25 }]);
    expect(days.get("2027-03-27")?.map((e) => e.kind)).toEqual(["errand", "busy", "sitting"]);
    expect(days.get("2027-03-28")?.map((e) => [e.from, e.to])).toEqual([[0, 1440]]);
    expect(days.has("2027-03-29")).toBe(false);
    const sitting = days.get("2027-03-27")?.[2];
    expect(sitting?.to).toBe(1440);
    expect(sitting?.says).toContain("at home");
  });

  it("lays what shares time side by side, and nothing over another", () => {
    const at = (from: number, to: number) => ({
      key: `${from}`,
      kind: "busy" as const,
      on: "",
      from,
      to,
      title: "",
      says: "",
    });
    const placed = lanes([at(0, 60), at(30, 90), at(60, 120), at(95, 100)]);
    for (const a of placed)
      for (const b of placed)
        if (a !== b && a.lane === b.lane)
          expect((a.entry.from ?? 0) >= b.entry.to || (b.entry.from ?? 0) >= a.entry.to).toBe(true);
    expect(placed[0]?.of).toBe(2);
  });
});
