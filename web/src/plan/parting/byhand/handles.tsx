import { useRef } from "react";
import type { Direction, Edit, HeadShape, Layout, PlanInput, Row, Section } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { length, type LengthUnit } from "../../../lib/units";
import { dot, mix, unit, vec, zoneName, type Camera, type Vec } from "../../../head";
import { actions, type Act } from "../../draft/actions";
import { direction, onBothSides, point, withEdits } from "./edits";
import { Handle, type HandleProps } from "./Handle";

interface Props {
  layout: Layout;
  head: HeadShape;
  camera: Camera;
  edits: readonly Edit[];
  both: boolean;
  placeOf: HandleProps["placeOf"];
  act: Act;
}

/** How far an arrow key moves a handle, mm. */
const stepOf = (unit: string) => (unit === "in" ? 25.4 / 16 : 1);

type Moves = Pick<HandleProps, "onDrag" | "onEnd" | "onStep">;

/** Moves what lies at a place on, by drag or step; where it first lay is kept for as long as one drags. */
function useMoving({ head, camera, edits, both, act }: Props, kind: "move-row" | "move-part") {
  const by = stepOf(usePreferences((p) => p.unit));
  const start = useRef<{ key: string; was: Direction }>(undefined);
  const end = () => {
    start.current = undefined;
  };
  return (key: string, now: Vec, line: readonly Vec[] = [now]): Moves => {
    const move = (to: Vec) => {
      const axes = head.axesMm;
      if (start.current?.key !== key) {
        // What was moved before goes on from where it first lay.
        const earlier = edits.find(
          (e) => e.kind === kind && line.some((p) => Math.hypot(...minus(point(e.at, axes), p)) < onLine),
        );
        start.current = { key, was: earlier?.with ?? direction(now, axes) };
      }
      const edit: Edit = { kind, at: direction(to, axes), with: start.current.was };
      act(actions.changeParting(`byhand.${key}`, (s) => withEdits(s, onBothSides([edit], both))));
    };
    return {
      onDrag: (to) => {
        const under = camera.under(to);
        if (under) move(under);
      },
      onEnd: end,
      onStep: (right, up) => {
        move(stepped(camera, now, right * by, up * by));
        end();
      },
    };
  };
}

/** How near a line a change must lie to be the one that moved it, mm; lines are drawn in steps up to this long. */
const onLine = 6;

const minus = (p: Vec, q: Vec): Vec => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];

/** The place a step to the right and up on the picture, back on the scalp. */
function stepped(camera: Camera, from: Vec, right: number, up: number): Vec {
  const [x, y] = camera.flat(from);
  return camera.under([x + right, y - up]) ?? from;
}

/** Dots on the row lines, to drag them up and down. */
export function RowHandles(props: Props & { picked: readonly Section[] }) {
  const { layout, camera, picked, placeOf } = props;
  const unitName = usePreferences((p) => p.unit);
  const moving = useMoving(props, "move-row");
  const rows = layout.rows.filter(
    (r) =>
      r.line.length > 2 &&
      (picked.length === 0 ||
        picked.some((s) => s.zone === r.zone && (s.row === r.row || s.row === r.row + 1))),
  );
  const height = (r: Row, above: number) => {
    const all = layout.sections.filter((s) => s.zone === r.zone && s.row === r.row + above);
    return all.reduce((sum, s) => sum + s.heightMm.mean, 0) / (all.length || 1);
  };
  return rows.map((r) => {
    const at = r.line[Math.floor(r.line.length / 2)] ?? r.end;
    if (camera.facing(at) < 0.12) return null;
    const key = `${r.zone}${r.row}`;
    return (
      <Handle
        key={key}
        at={camera.flat(at)}
        label={`${zoneName(r.zone)}: line above row ${r.row}`}
        says={`row ${r.row + 1}: ${length(height(r, 1), unitName)} · row ${r.row}: ${length(height(r, 0), unitName)}`}
        value={height(r, 0)}
        placeOf={placeOf}
        {...moving(key, at, r.line)}
      />
    );
  });
}

/** Dots on both ends of the one section picked, to drag its parts along the row. */
export function PartHandles(props: Props & { section: Section }) {
  const { layout, camera, section, placeOf } = props;
  const unitName = usePreferences((p) => p.unit);
  const moving = useMoving(props, "move-part");
  const beside = layout.sections.filter(
    (s) => s.zone === section.zone && s.row === section.row && section.neighbours.includes(s.id),
  );
  return beside.map((other) => {
    const [w, v] = [section.widthMm.mean, other.widthMm.mean];
    const at = mix(section.centroid, other.centroid, w / (w + v));
    if (camera.facing(at) < 0.12) return null;
    const key = `part ${section.id} ${other.id}`;
    return (
      <Handle
        key={key}
        shape="part"
        at={camera.flat(at)}
        label={`Part between ${section.id} and ${other.id}`}
        says={`${length(w, unitName)} · ${length(v, unitName)}`}
        value={w}
        placeOf={placeOf}
        {...moving(key, at)}
      />
    );
  });
}

type Landmark = keyof PlanInput["hairline"] &
  ("templeCorner" | "temple" | "sideburn" | "behindEar" | "napeCorner");
const landmarks: { name: Landmark; label: string }[] = [
  { name: "templeCorner", label: "Temple corner" },
  { name: "temple", label: "Temple" },
  { name: "sideburn", label: "Sideburn" },
  { name: "behindEar", label: "Behind the ear" },
  { name: "napeCorner", label: "Nape corner" },
];

const farthest = 40; // mm

const clamp = (mm: number) => Math.round(10 * Math.max(-farthest, Math.min(farthest, mm))) / 10;

interface Moved {
  text: string;
  /** The longer way of the two. */
  mm: number;
}

/** How far a landmark stands from its usual place. */
function movedBy(up: number, back: number, unit: LengthUnit): Moved {
  const part = (mm: number, more: string, less: string) =>
    Math.abs(mm) < 0.5 ? [] : [`${length(Math.abs(mm), unit)} ${mm > 0 ? more : less}`];
  const text = [...part(up, "higher", "lower"), ...part(back, "further back", "further forward")].join(", ");
  return { text: text || "as usual", mm: Math.abs(up) > Math.abs(back) ? up : back };
}

interface HairlineProps {
  head: HeadShape;
  input: PlanInput;
  camera: Camera;
  placeOf: HandleProps["placeOf"];
  act: Act;
}

/** Dots on the hairline, to drag it to where the client's runs; both sides together. */
export function HairlineHandles({ head, input, camera, placeOf, act }: HairlineProps) {
  const unitName = usePreferences((p) => p.unit);
  const start = useRef<{ key: string; at: Vec; input: PlanInput }>(undefined);
  const [a, b, c] = vec(head.axesMm);
  const { hairline } = input;

  /** How far up and how far back a place lies from where the drag began, mm. */
  const way = (from: Vec, to: Vec, side: 1 | -1) => {
    const left = (p: Vec): Vec => [p[0], side * p[1], p[2]];
    const p = left(from);
    const u = unit([p[0] / a, p[1] / b, p[2] / c]);
    const [lon, lat] = [Math.atan2(u[1], u[0]), Math.asin(u[2])];
    const [sinLon, cosLon, sinLat, cosLat] = [Math.sin(lon), Math.cos(lon), Math.sin(lat), Math.cos(lat)];
    const d = minus(left(to), p);
    return {
      up: dot(d, unit([-a * sinLat * cosLon, -b * sinLat * sinLon, c * cosLat])),
      back: dot(d, unit([-a * sinLon, b * cosLon, 0])),
    };
  };

  const handle = (
    key: string,
    label: string,
    moved: Moved,
    at: Vec,
    side: 1 | -1,
    apply: (i: PlanInput, up: number, back: number) => PlanInput,
  ) => {
    if (camera.facing(at) < 0.04) return null;
    const move = (to: Vec) => {
      if (start.current?.key !== key) start.current = { key, at, input };
      const { up, back } = way(start.current.at, to, side);
      const from = start.current.input;
      const moved = apply(from, up, back);
      act(actions.setHairline(`hairline.${key}`, moved.hairline, moved.head));
    };
    return (
      <Handle
        key={`${key}${side}`}
        shape="landmark"
        at={camera.flat(at)}
        label={label}
        says={`${label}: ${moved.text}`}
        value={moved.mm}
        placeOf={placeOf}
        onDrag={(to) => {
          const under = camera.under(to);
          if (under) move(under);
        }}
        onEnd={() => (start.current = undefined)}
        onStep={(right, up) => {
          const by = stepOf(unitName);
          move(stepped(camera, at, right * by, up * by));
          start.current = undefined;
        }}
      />
    );
  };

  return (
    <>
      {handle(
        "front",
        "Front centre",
        movedBy(hairline.frontMm, 0, unitName),
        vec(head.landmarks.front),
        1,
        (i, up) => ({
          ...i,
          hairline: { ...i.hairline, frontMm: clamp(i.hairline.frontMm + up) },
        }),
      )}
      {handle(
        "nape",
        "Nape centre",
        { text: `${length(input.head.frontToNapeMm, unitName)} of tape`, mm: input.head.frontToNapeMm },
        vec(head.landmarks.nape),
        1,
        (i, up) => ({
          ...i,
          head: { ...i.head, frontToNapeMm: Math.round(10 * (i.head.frontToNapeMm - up)) / 10 },
        }),
      )}
      {landmarks.flatMap(({ name, label }) =>
        ([1, -1] as const).map((side) => {
          const left = vec(head.landmarks[name]);
          const at: Vec = [left[0], side * left[1], left[2]];
          return handle(
            name,
            `${label}, ${side > 0 ? "left" : "right"}; both move`,
            movedBy(hairline[name].upMm, hairline[name].backMm, unitName),
            at,
            side,
            (i, up, back) => ({
              ...i,
              hairline: {
                ...i.hairline,
                [name]: {
                  upMm: clamp(i.hairline[name].upMm + up),
                  backMm: clamp(i.hairline[name].backMm + back),
                },
              },
            }),
          );
        }),
      )}
    </>
  );
}
