import type { Drape, Fitting, Given, Hook, NoticeFact, Section } from "../../../api/types";
import type { Class, Reading } from "../../../head";
import { fitKey, landingKey, loadKey } from "../../draft/worn";

const dark = "#2a231c";
const light = "#fffaf0";

const pending: Class = { key: "-", fill: "#e9e0cc", ink: dark, mark: "…", name: "Being looked at" };

/** The tones of what is found on a piece against its plait, the gravest first. */
const tones: readonly Pick<Class, "fill" | "ink">[] = [
  { fill: "#8c3522", ink: light },
  { fill: "#a23a26", ink: light },
  { fill: "#d9977b", ink: dark },
  { fill: "#6d5f8d", ink: light },
  { fill: "#b3a9c9", ink: dark },
  { fill: "#c98a1b", ink: dark },
  { fill: "#f0d58f", ink: dark },
  { fill: "#4f7186", ink: light },
];

/** What is found on a piece against its plait, as the head shows it. */
function fitClasses(facts: readonly NoticeFact[]): Class[] {
  return facts
    .filter((f) => f.subject === "fit")
    .map(({ code, label = "", mark = "" }, i) => {
      const tone = tones[i % tones.length] ?? pending;
      return { key: code, fill: tone.fill, ink: tone.ink, mark, name: label };
    });
}
const suits: Class = { key: "", fill: "#b9cfa9", ink: dark, mark: "=", name: "Suits" };

const loads: Readonly<Record<string, Omit<Class, "key">>> = {
  light: { fill: "#e3ebd9", ink: dark, mark: "·", name: "Light" },
  usual: { fill: "#94b690", ink: dark, mark: "=", name: "As usual" },
  heavy: { fill: "#c98a1b", ink: dark, mark: "+", name: "Heavy here" },
  "too-heavy": { fill: "#8c3522", ink: light, mark: "++", name: "Too heavy: not this piece" },
};

const lands: Readonly<Record<Drape["pieces"][number]["line"], Omit<Class, "key">>> = {
  ear: { fill: "#f0d58f", ink: dark, mark: "E", name: "Above the chin" },
  chin: { fill: "#e6bd6b", ink: dark, mark: "C", name: "Chin" },
  shoulder: { fill: "#c98a1b", ink: dark, mark: "S", name: "Shoulder" },
  armpit: { fill: "#b9cfa9", ink: dark, mark: "A", name: "Armpit" },
  "mid-back": { fill: "#94b690", ink: dark, mark: "M", name: "Mid-back" },
  waist: { fill: "#3f6f4a", ink: light, mark: "W", name: "Waist" },
  hip: { fill: "#4f7186", ink: light, mark: "H", name: "Hip" },
  thigh: { fill: "#6d5a86", ink: light, mark: "T", name: "Thigh" },
  knee: { fill: "#8c3522", ink: light, mark: "K", name: "Knee" },
  floor: { fill: "#5b1f14", ink: light, mark: "F", name: "On the floor" },
};

const byPlace = (
  key: string,
  name: string,
  order: readonly string[],
  of: (place: number) => Class,
  says: (place: number) => string | undefined,
): Reading => ({
  key,
  name,
  of: (s: Section) => of(placeOf(s.given)),
  ofHook: (h: Hook) => of(placeOf(h.given)),
  order,
  says: (s: Section) => says(placeOf(s.given)),
});
const placeOf = ({ place }: Given) => place;

/** The head coloured by how the pieces suit, how heavy they are, and where they end. */
export function fallReadings(
  facts: readonly NoticeFact[],
  fitting: Fitting | undefined,
  drape: Drape | undefined,
): Reading[] {
  const fits = fitClasses(facts);
  const fit = (place: number): Class => {
    const at = fitting?.places[place];
    if (!at) return pending;
    return fits.find((f) => f.key === at.fit) ?? suits;
  };
  const load = (place: number): Class => {
    const word = fitting?.places[place]?.word;
    const of = word && loads[word];
    return of ? { key: word, ...of } : pending;
  };
  const carries = (place: number) => {
    const at = fitting?.places[place];
    return (
      at &&
      `${at.hungG.toFixed(1)} g hang here, about ${at.soakedG.toFixed(1)} g soaked: ${at.loadMg.toFixed(1)} mg a hair, ${fitting.load.usualMg.toFixed(1)} is usual`
    );
  };
  // Of several pieces at a place the lowest end counts.
  const ends = new Map<number, Drape["pieces"][number]>();
  drape?.pieces.forEach((p) => {
    if (p.ends < (ends.get(p.place)?.ends ?? Infinity)) ends.set(p.place, p);
  });
  const landing = (place: number): Class => {
    const line = ends.get(place)?.line;
    return line ? { key: line, ...lands[line] } : pending;
  };
  const hangs = (place: number) => {
    const end = ends.get(place);
    return end && `Its end hangs at: ${lands[end.line].name.toLowerCase()}`;
  };
  return [
    byPlace(fitKey, "Fit", [...fits.map((f) => f.key), suits.key, pending.key], fit, carries),
    byPlace(loadKey, "Load", [...Object.keys(loads).reverse(), pending.key], load, carries),
    byPlace(landingKey, "Landing", [...Object.keys(lands), pending.key], landing, hangs),
  ];
}
