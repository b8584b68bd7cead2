// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Price } from "../api/types";
import { FieldErrors } from "./fields";
import { Parts, type Part } from "./Parts";
import { PriceTable } from "./PriceTable";
import { QuoteState } from "./QuoteState";

afterEach(cleanup);

const part = (key: string, chapter?: string, paths: string[] = []): Part => ({
  key,
  title: key,
  says: `${key} in a line`,
  paths,
  content: <p>{key} opened</p>,
  ...(chapter && { chapter }),
});

const many = [
  part("pieces", "Choose"),
  part("plaits", "Choose"),
  part("stash", "Buy"),
  part("price", "Price", ["price."]),
];

describe("the parts of a step", () => {
  it("open one at a time, the first by itself", () => {
    render(<Parts step="a" parts={[part("one"), part("two")]} />);
    expect(screen.getByText("one opened")).toBeTruthy();
    expect(screen.getByText("two in a line")).toBeTruthy();
    expect(screen.queryByLabelText("Chapters of this step")).toBeNull();
    fireEvent.click(screen.getByText("two"));
    expect(screen.queryByText("one opened")).toBeNull();
    expect(screen.getByText("two opened")).toBeTruthy();
    fireEvent.click(screen.getByText("two"));
    expect(screen.queryByText("two opened")).toBeNull();
  });

  it("of many stand in chapters, each of which remembers what was open", () => {
    render(<Parts step="b" parts={many} />);
    expect(screen.queryByText("stash")).toBeNull();
    fireEvent.click(screen.getByText("plaits"));
    fireEvent.click(screen.getByText("Buy"));
    expect(screen.getByText("stash opened")).toBeTruthy();
    fireEvent.click(screen.getByText("Choose"));
    expect(screen.getByText("plaits opened")).toBeTruthy();
  });

  it("are marked in another chapter where something was refused", () => {
    render(
      <FieldErrors value={{ "price.extras[0].name": "It needs a name." }}>
        <Parts step="c" parts={many} />
      </FieldErrors>,
    );
    fireEvent.click(screen.getByText("Price !"));
    fireEvent.click(screen.getByText("price"));
    expect(screen.getByText("Something here cannot be")).toBeTruthy();
  });
});

const price: Price = {
  lines: [{ kind: "work", name: "Work", detail: "2 h 00 min", amountMinor: 12345 }],
  taxName: "Tax",
  taxPercent: 10,
  taxIncluded: true,
  taxMinor: 1122,
  totalMinor: 12345,
  depositMinor: 0,
  restMinor: 12345,
};

describe("a price", () => {
  // Decimals by ISO 4217: none of the yen, two of the euro, three of the dinar.
  it.each([
    ["JPY", "¥12,345"],
    ["EUR", "€123.45"],
    ["KWD", "KWD 12.345"],
  ])("is written with the decimals of %s", (currency, written) => {
    render(<PriceTable price={price} currency={currency} />);
    const [first] = screen.getAllByText((_, e) => e?.tagName === "TD");
    expect(first?.textContent.replaceAll("\u00a0", " ")).toBe(written);
  });

  it("says the tax that is in it, or on top of it", () => {
    render(<PriceTable price={price} currency="EUR" />);
    expect(screen.getByText(/Tax 10 % in it: €11.22/)).toBeTruthy();
    expect(screen.queryByText(/Deposit/)).toBeNull();
    cleanup();
    render(<PriceTable price={{ ...price, taxIncluded: false, depositMinor: 2000 }} currency="EUR" />);
    expect(screen.getByText("Tax 10 %").closest("tr")?.textContent).toContain("€11.22");
    expect(screen.getByText(/Deposit/).closest("tr")?.textContent).toContain("€20.00");
  });
});

describe("what became of a quote", () => {
  it("is said in a word, and that it ran out", () => {
    render(<QuoteState quote={{ state: "accepted", expired: false }} />);
    expect(screen.getByText("Accepted")).toBeTruthy();
    cleanup();
    render(<QuoteState quote={{ state: "given", expired: true }} />);
    expect(screen.getByText("Ran out")).toBeTruthy();
  });
});
