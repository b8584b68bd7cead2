import { localDay, zoneNow } from "./localDay";
/** Lengths travel in mm; people read inches in eighths or centimetres in millimetres. */
export type LengthUnit = "in" | "cm";

const mmPer: Record<LengthUnit, number> = { in: 25.4, cm: 10 };
const eighths = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"] as const;

export const toUnit = (mm: number, unit: LengthUnit) => mm / mmPer[unit];
export const toMm = (value: number, unit: LengthUnit) => value * mmPer[unit];

/** A number of inches as a stylist writes it: 12½. */
export function writeInches(inches: number): string {
  const whole = Math.round(Math.abs(inches) * 8);
  const sign = inches < 0 && whole > 0 ? "−" : "";
  const [full, part] = [Math.floor(whole / 8), eighths[whole % 8] ?? ""];
  return sign + (full === 0 && part !== "" ? part : `${full}${part}`);
}

/** A length without its unit. */
export function writeLength(mm: number, unit: LengthUnit): string {
  // Rounded as on paper: half a millimetre goes up, away from nothing.
  return unit === "in" ? writeInches(mm / 25.4) : String((Math.sign(mm) * Math.round(Math.abs(mm))) / 10);
}

export const length = (mm: number, unit: LengthUnit) => `${writeLength(mm, unit)} ${unit}`;

/** A distance as it is set with a comb, without its unit: to ⅛ in or 2 mm. */
export const comb = (mm: number, unit: LengthUnit) =>
  writeLength(unit === "cm" ? Math.round(mm / 2) * 2 : mm, unit);

/** `comb` with the way told: + further on, − back. */
export function offset(mm: number, unit: LengthUnit): string {
  const text = comb(Math.abs(mm), unit);
  if (text === comb(0, unit)) return text;
  return mm < 0 ? `−${text}` : `+${text}`;
}

export function area(mm2: number, unit: LengthUnit): string {
  return unit === "in" ? `${(mm2 / 645.16).toFixed(2)} sq in` : `${(mm2 / 100).toFixed(1)} cm²`;
}

/** Reads "12 1/2", "12½", "12.5" or "12,5"; NaN when it is none of these. */
export function readNumber(text: string): number {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  const glyph = eighths.findIndex((e, i) => i > 0 && plain.endsWith(e));
  if (glyph > 0) {
    const head = plain.slice(0, -1).trim();
    return (head === "" ? 0 : Number(head)) + glyph / 8;
  }
  const mixed = /^(?:(\d+)\s+)?(\d+)\s*\/\s*([1-9]\d*)$/.exec(plain);
  if (mixed) return Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]);
  return plain === "" ? NaN : Number(plain);
}

/** Exponents of currencies as the studio says them: browsers show some with fewer decimals than they have. */
const exponents = new Map<string, number>();

/** Says how many decimals a currency has, by ISO 4217. */
export const setExponent = (currency: string, digits: number) => void exponents.set(currency, digits);

/** Until the studio has said it, what the browser takes it for. */
const exponentOf = (currency: string) =>
  exponents.get(currency) ??
  new Intl.NumberFormat("en", { style: "currency", currency }).resolvedOptions().maximumFractionDigits ??
  2;

/** How many minor units of a currency make a whole one. */
export const minorUnits = (currency: string) => 10 ** exponentOf(currency);

const writers = new Map<string, (minor: number) => string>();

/** Writes amounts in minor units of a currency as the reader is used to; decimals where there are any. */
export function moneyIn(currency: string): (minor: number) => string {
  const key = `${currency} ${exponentOf(currency)}`;
  const known = writers.get(key) ?? writerOf(currency);
  writers.set(key, known);
  return known;
}

function writerOf(currency: string): (minor: number) => string {
  const usual = new Intl.NumberFormat(undefined, { style: "currency", currency });
  const digits = exponentOf(currency);
  const fine = new Intl.NumberFormat(undefined, {
    style: "currency",
    currency,
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  const whole = 10 ** digits;
  return (minor) => (minor % whole === 0 ? usual : fine).format(minor / whole);
}

/** Minutes as hours and minutes, to five minutes from an hour on. */
export function hours(minutes: number): string {
  // To whole minutes first, as on paper.
  const rounded = Math.round(minutes);
  const whole = Math.abs(rounded) >= 60 ? Math.round(rounded / 5) * 5 : rounded;
  const [h, m] = [Math.floor(Math.abs(whole) / 60), Math.abs(whole) % 60];
  if (h === 0) return `${m} min`;
  return m === 0 ? `${h} h` : `${h} h ${m} min`;
}

export function weight(g: number, unit: LengthUnit): string {
  return unit === "in" ? `${(g / 28.3495).toFixed(1)} oz` : `${Math.round(g)} g`;
}

const date = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeZone: "UTC" });

/** A point in time as a time of the studio's clock, always from 00:00 to 23:59, as times are typed. */
export const clockOf = (at: number | Date) =>
  new Intl.DateTimeFormat("en-GB", {
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
    timeZone: zoneNow(),
  }).format(at);

/** A time as one says it: today and yesterday by name. */
export function when(stamp: string): string {
  const then = new Date(stamp);
  const on = localDay(then);
  const days = Math.round((Date.parse(localDay()) - Date.parse(on)) / 86_400_000);
  const day = days === 0 ? "today" : days === 1 ? "yesterday" : date.format(new Date(on));
  return `${day}, ${clockOf(then)}`;
}

const weekday = new Intl.DateTimeFormat(undefined, { weekday: "short", day: "numeric", month: "short" });

/** A date without a time, such as 2027-03-20, as the reader writes it. */
export const day = (on: string): string => weekday.format(new Date(`${on}T12:00:00`));
