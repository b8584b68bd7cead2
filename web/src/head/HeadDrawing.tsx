import { memo, useId, useMemo } from "react";
import type { HeadShape, Layout } from "../api/types";
import { hairTones, skinTones, type HairTone, type SkinTone } from "../app/preferences";
import { bust, type BustPart } from "./bust";
import type { Camera } from "./camera";
import styles from "./HeadDrawing.module.css";
import * as paths from "./paths";
import type { Class } from "./reading";
import { basePaths, type DrawnBase } from "./tracks";
import { add, dot, mix, scale, vec, type Flat, type Vec } from "./vectors";

/** Where a strand leaves the part line, and where it lifts on its way to the root. */
interface Strand {
  from: Vec;
  via: Vec;
}

/** A section made ready for drawing, once for every result. */
export interface DrawnSection {
  id: string;
  ring: Vec[];
  root: Vec;
  normal: Vec;
  /** Where its plait is laid into the next one, of linked plaits. */
  into: Vec | undefined;
  /** How far the ring strays from the root, as the camera measures facing. */
  reach: number;
  /** The strands; worked out when they are first drawn. */
  strands: () => Strand[];
}

const strandEvery = 4; // mm of part line

export function drawnSections(layout: Layout, axes: readonly number[]): DrawnSection[] {
  const [a, b, c] = vec(axes);
  const roots = new Map(layout.sections.map((s) => [s.id, s.centroid]));
  return layout.sections.map((s) => {
    const next = s.into === undefined ? undefined : roots.get(s.into);
    const ring = s.outline.map(vec);
    const root = vec(s.centroid);
    const normal = vec(s.normal);
    let reach = 0;
    for (const p of ring)
      reach = Math.max(reach, Math.hypot((p[0] - root[0]) / a, (p[1] - root[1]) / b, (p[2] - root[2]) / c));
    let strands: Strand[] | undefined;
    return {
      id: s.id,
      ring,
      root,
      normal,
      into: next && vec(next),
      reach,
      strands: () => (strands ??= strandsOf(ring, root, normal)),
    };
  });
}

/** Strands at even steps along the parts, gathering to the root. */
function strandsOf(ring: Vec[], root: Vec, normal: Vec): Strand[] {
  const strands: Strand[] = [];
  let carried = strandEvery / 2;
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length] ?? p;
    const side = Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]);
    for (; carried < side; carried += strandEvery) {
      const from = mix(mix(p, q, carried / side), root, 0.1);
      const reach = Math.hypot(root[0] - from[0], root[1] - from[1], root[2] - from[2]);
      strands.push({ from, via: add(mix(from, root, 0.45), scale(0.16 * reach, normal)) });
    }
    carried -= side;
  });
  return strands;
}

interface Props {
  head: HeadShape;
  layout: Layout;
  sections: DrawnSection[];
  base: DrawnBase;
  camera: Camera;
  hair: HairTone;
  skin: SkinTone;
  /** Diameter of a plait at its root, mm. */
  plait: number;
  /** Small pictures leave strands out. */
  small?: boolean;
  /** Sections to ring, such as those of a warning. */
  marked?: ReadonlySet<string>;
  /** Sections picked to read or to change. */
  chosen?: ReadonlySet<string> | undefined;
  /** The one section in the order of the Tab key. */
  tabStop?: string | undefined;
  /** What each section is, in words; sections with words can be focused and tapped. */
  labels?: ReadonlyMap<string, string>;
  /** Colours and marks sections by what they are, in place of hair. */
  classes?: ReadonlyMap<string, Class> | undefined;
  /** Leaves the strands out, to keep up with a head that turns or changes. */
  turning?: boolean;
}

const paint: Record<BustPart["tone"], string> = {
  skin: "skin",
  ear: "skin",
  neck: "neck",
  hollow: "neck",
  line: "",
};

const Bust = ({ parts, gradient }: { parts: BustPart[]; gradient: string }) =>
  parts.map((p) => (
    <path
      key={p.key}
      d={p.path}
      opacity={p.opacity}
      className={styles[p.tone]}
      fill={paint[p.tone] ? `url(#${gradient}-${paint[p.tone]})` : "none"}
    />
  ));

/** The parted head as one group of vector shapes; the picture's unit is 1 mm. */
export const HeadDrawing = memo(function HeadDrawing(props: Props) {
  const {
    head,
    layout,
    sections,
    base,
    camera,
    small = false,
    turning = false,
    plait,
    marked,
    chosen,
    tabStop,
    labels,
    classes,
  } = props;
  const gradient = useId();
  const skin = skinTones[props.skin];
  const hair = hairTones[props.hair];
  const figure = useMemo(() => bust(head, camera), [head, camera]);

  const shapes = useMemo(() => {
    const [dark, light] = [hair.dark, hair.light];
    const tone = (normal: Vec) => {
      const lit = Math.max(0, Math.min(1, 0.1 + 0.9 * dot(normal, camera.light)));
      const f = small ? Math.round(lit * 8) / 8 : lit;
      return `rgb(${[0, 1, 2].map((i) => Math.round((dark[i] ?? 0) + f * ((light[i] ?? 0) - (dark[i] ?? 0)) * 0.72)).join(" ")})`;
    };
    const boxes: { id: string; path: string; fill: string }[] = [];
    let [strands, roots, glints, links] = ["", "", "", ""];
    const marks: { id: string; at: Flat; of: Class; size: number }[] = [];
    for (const s of sections) {
      const facing = camera.facing(s.root);
      if (facing + s.reach < 0) continue;
      const rings = facing > s.reach ? [s.ring] : camera.clip(s.ring);
      const path = rings.map((ring) => paths.closed(ring, camera.flat)).join("");
      if (path === "") continue;
      const of = classes?.get(s.id);
      const fill = of?.fill ?? tone(s.normal);
      // A small picture needs no section by itself: one path for each tone.
      const same = small ? boxes.find((b) => b.fill === fill) : undefined;
      if (same) same.path += path;
      else boxes.push({ id: s.id, path, fill });
      if (facing < 0.08) continue;
      const root = camera.flat(s.root);
      if (of) {
        if (facing > 0.25) marks.push({ id: s.id, at: root, of, size: Math.min(9, 46 * s.reach) });
        continue;
      }
      if (s.into && camera.facing(s.into) > 0.08) links += paths.open([root, camera.flat(s.into)], (p) => p);
      const r = plait / 2;
      roots += paths.disc(root, small ? Math.max(1.8, r) : r);
      if (small) continue;
      glints += paths.disc([root[0] - r * 0.25, root[1] - r * 0.3], r * 0.34);
      if (turning) continue;
      for (const strand of s.strands()) {
        if (camera.facing(strand.from) > 0)
          strands += paths.curve(camera.flat(strand.from), camera.flat(strand.via), root);
      }
    }
    const line = (points: readonly (readonly number[])[]) =>
      camera
        .clipLine(points.map(vec))
        .map((stretch) => paths.open(stretch, camera.flat))
        .join("");
    return {
      boxes,
      marks,
      strands,
      roots,
      glints,
      links,
      parts: line(layout.partLine) + line(layout.earToEar),
    };
  }, [sections, layout, camera, hair, plait, small, turning, classes]);

  const rest = useMemo(() => {
    const [dark, light] = [hair.dark, hair.light];
    return basePaths(
      base,
      camera,
      (normal, lifted) => {
        const lit = Math.round(Math.max(0, Math.min(1, 0.1 + 0.9 * dot(normal, camera.light))) * 8) / 8;
        const f = lit * (lifted ? 1 : 0.42) + (lifted ? 0.12 : 0);
        return `rgb(${[0, 1, 2].map((i) => Math.round((dark[i] ?? 0) + f * ((light[i] ?? 0) - (dark[i] ?? 0)))).join(" ")})`;
      },
      small ? 2.2 : 1.5,
    );
  }, [base, camera, hair, small]);

  return (
    <g strokeLinejoin="round" strokeLinecap="round">
      <defs>
        <radialGradient id={`${gradient}-skin`} gradientUnits="userSpaceOnUse" cx={-38} cy={-40} r={210}>
          <stop offset="0" stopColor={skin.light} />
          <stop offset="0.55" stopColor={skin.base} />
          <stop offset="1" stopColor={skin.shade} />
        </radialGradient>
        <linearGradient id={`${gradient}-neck`} gradientUnits="userSpaceOnUse" x1={0} y1={40} x2={0} y2={140}>
          <stop offset="0" stopColor={skin.shade} />
          <stop offset="0.55" stopColor={skin.base} />
          <stop offset="1" stopColor={skin.base} stopOpacity={0} />
        </linearGradient>
      </defs>
      <g stroke={skin.shade}>
        <Bust parts={figure.behind} gradient={gradient} />
      </g>
      <pattern
        id={`${gradient}-loose`}
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(30)"
      >
        <rect width="5" height="5" fill={skin.base} />
        <path d="M0 2.5H5" stroke={`rgb(${hair.light.join(" ")})`} strokeWidth="1.3" />
      </pattern>
      <path d={rest.leftOut} fill={`url(#${gradient}-loose)`} />
      <g stroke={skin.scalp} strokeWidth={small ? 2.6 : 1.5}>
        {rest.bands.map((b) => (
          <path key={b.tone} d={b.path} fill={b.tone} />
        ))}
      </g>
      <g stroke={`rgb(${hair.dark.join(" ")})`} strokeWidth={0.5}>
        {rest.turns.map((t) => (
          <path key={t.tone} d={t.path} fill={t.tone} />
        ))}
      </g>
      <path d={rest.mesh} className={styles.mesh} />
      <path d={rest.hooks} className={styles.hooks} />
      <g stroke={classes ? skin.shade : skin.scalp} strokeWidth={small ? 3 : 1.7}>
        {shapes.boxes.map((b) => (
          <path
            key={b.id}
            d={b.path}
            fill={b.fill}
            {...(labels && {
              className: styles.section,
              role: "button",
              "data-section": b.id,
              tabIndex: b.id === tabStop ? 0 : -1,
              "aria-label": labels.get(b.id),
              "aria-pressed": chosen?.has(b.id) ?? false,
            })}
          />
        ))}
      </g>
      <g className={styles.over}>
        <path d={shapes.parts} fill="none" stroke={skin.scalp} strokeWidth={small ? 3.6 : 2.6} />
        <path
          d={shapes.strands}
          fill="none"
          stroke={`rgb(${hair.light.join(" ")})`}
          strokeWidth={0.6}
          strokeOpacity={0.66}
        />
        <path d={shapes.links} fill="none" stroke={`rgb(${hair.dark.join(" ")})`} strokeWidth={plait * 0.8} />
        <path
          d={shapes.links}
          fill="none"
          stroke={`rgb(${hair.light.join(" ")})`}
          strokeWidth={plait * 0.42}
          strokeDasharray="2.4 1.6"
        />
        <path
          d={shapes.roots}
          fill={`rgb(${hair.dark.join(" ")})`}
          stroke="rgb(0 0 0 / 0.35)"
          strokeWidth={0.5}
        />
        <path d={shapes.glints} fill="#fff" fillOpacity={0.4} />
        {shapes.marks.map(({ id, at, of, size }) => (
          <text key={id} x={at[0]} y={at[1]} fill={of.ink} fontSize={size} className={styles.mark}>
            {of.mark}
          </text>
        ))}
        {marked && (
          <g className={styles.marked}>
            {shapes.boxes
              .filter((b) => marked.has(b.id))
              .map((b) => (
                <path key={b.id} d={b.path} />
              ))}
          </g>
        )}
        {chosen && (
          <g className={styles.selected}>
            {shapes.boxes
              .filter((b) => chosen.has(b.id))
              .map((b) => (
                <path key={b.id} d={b.path} />
              ))}
          </g>
        )}
      </g>
      <g stroke={skin.shade} className={styles.over}>
        <Bust parts={figure.before} gradient={gradient} />
      </g>
    </g>
  );
});
