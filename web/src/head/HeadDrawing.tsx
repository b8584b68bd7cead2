import { memo, useId, useMemo, type KeyboardEvent } from "react";
import type { HeadShape, Layout } from "../api/types";
import { hairTones, skinTones, type HairTone, type SkinTone } from "../app/preferences";
import { bust, type BustPart } from "./bust";
import type { Camera } from "./camera";
import styles from "./HeadDrawing.module.css";
import * as paths from "./paths";
import { add, dot, mix, scale, vec, type Vec } from "./vectors";

/** A section made ready for drawing, once for every result. */
export interface DrawnSection {
  id: string;
  ring: Vec[];
  inner: Vec[];
  /** Where each strand leaves the part line and where it lifts on its way to the root. */
  strands: { from: Vec; via: Vec }[];
  root: Vec;
  normal: Vec;
}

/** How much of the section the gathered, lighter middle takes. */
const innerShare = 0.64;
const strandEvery = 3.4; // mm of part line

export function drawnSections(layout: Layout): DrawnSection[] {
  return layout.sections.map((s) => {
    const ring = s.outline.map(vec);
    const root = vec(s.centroid);
    const normal = vec(s.normal);
    const strands: DrawnSection["strands"] = [];
    let carried = strandEvery / 2;
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length] ?? p;
      const side = Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]);
      for (; carried < side; carried += strandEvery) {
        const edge = mix(mix(p, q, carried / side), root, 0.1);
        const reach = Math.hypot(root[0] - edge[0], root[1] - edge[1], root[2] - edge[2]);
        strands.push({ from: edge, via: add(mix(edge, root, 0.45), scale(0.16 * reach, normal)) });
      }
      carried -= side;
    });
    return { id: s.id, ring, inner: ring.map((p) => mix(root, p, innerShare)), strands, root, normal };
  });
}

interface Props {
  head: HeadShape;
  layout: Layout;
  sections: DrawnSection[];
  camera: Camera;
  hair: HairTone;
  skin: SkinTone;
  /** Diameter of a plait at its root, mm. */
  plait: number;
  /** Small pictures leave strands out. */
  small?: boolean;
  /** Sections to ring, such as those of a warning. */
  marked?: ReadonlySet<string>;
  selected?: string | undefined;
  /** The one section in the order of the Tab key. */
  tabStop?: string | undefined;
  describe?: ((id: string) => string) | undefined;
  onSelect?: ((id: string) => void) | undefined;
  onSectionKey?: ((id: string, event: KeyboardEvent) => void) | undefined;
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
  const { head, layout, sections, camera, small = false, plait, marked, selected, tabStop } = props;
  const gradient = useId();
  const skin = skinTones[props.skin];
  const hair = hairTones[props.hair];
  const figure = useMemo(() => bust(head, camera), [head, camera]);

  const shapes = useMemo(() => {
    const [dark, light] = [hair.dark, hair.light];
    const tone = (normal: Vec) => {
      const f = Math.max(0, Math.min(1, 0.1 + 0.9 * dot(normal, camera.light)));
      return `rgb(${[0, 1, 2].map((i) => Math.round((dark[i] ?? 0) + f * ((light[i] ?? 0) - (dark[i] ?? 0)) * 0.72)).join(" ")})`;
    };
    const boxes: { id: string; path: string; fill: string }[] = [];
    let [inner, strands, roots, glints] = ["", "", "", ""];
    for (const s of sections) {
      const ring = camera.clip(s.ring);
      if (ring.length < 3) continue;
      boxes.push({ id: s.id, path: paths.closed(ring.map(camera.flat)), fill: tone(s.normal) });
      const facing = camera.facing(s.root);
      if (facing < 0.08) continue;
      inner += paths.closed(camera.clip(s.inner).map(camera.flat));
      const root = camera.flat(s.root);
      const r = plait / 2;
      roots += paths.disc(root, small ? Math.max(1.8, r) : r);
      if (small) continue;
      glints += paths.disc([root[0] - r * 0.25, root[1] - r * 0.3], r * 0.34);
      for (const strand of s.strands) {
        if (camera.facing(strand.from) > 0)
          strands += paths.curve(camera.flat(strand.from), camera.flat(strand.via), root);
      }
    }
    const line = (points: readonly (readonly number[])[]) =>
      camera
        .clipLine(points.map(vec))
        .map((stretch) => paths.open(stretch.map(camera.flat)))
        .join("");
    return { boxes, inner, strands, roots, glints, parts: line(layout.middlePart) + line(layout.earToEar) };
  }, [sections, layout, camera, hair, plait, small]);

  const ringOf = (id: string) => shapes.boxes.find((b) => b.id === id)?.path;

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
      <g stroke={skin.scalp} strokeWidth={small ? 3 : 1.7}>
        {shapes.boxes.map((b) => (
          <path
            key={b.id}
            d={b.path}
            fill={b.fill}
            className={props.onSelect ? styles.section : undefined}
            {...(props.onSelect && {
              role: "button",
              "data-section": b.id,
              tabIndex: b.id === tabStop ? 0 : -1,
              "aria-label": props.describe?.(b.id),
              "aria-pressed": b.id === selected,
              onClick: () => props.onSelect?.(b.id),
              onKeyDown: (event: KeyboardEvent) => props.onSectionKey?.(b.id, event),
            })}
          />
        ))}
      </g>
      <g className={styles.over}>
        <path d={shapes.parts} fill="none" stroke={skin.scalp} strokeWidth={small ? 3.6 : 2.6} />
        <path d={shapes.inner} fill="#fff" opacity={0.07} />
        <path
          d={shapes.strands}
          fill="none"
          stroke={`rgb(${hair.light.join(" ")})`}
          strokeWidth={0.55}
          opacity={0.62}
        />
        <path
          d={shapes.roots}
          fill={`rgb(${hair.dark.join(" ")})`}
          stroke="rgb(0 0 0 / 0.35)"
          strokeWidth={0.5}
        />
        <path d={shapes.glints} fill="#fff" opacity={0.4} />
        {marked && (
          <g className={styles.marked}>
            {shapes.boxes
              .filter((b) => marked.has(b.id))
              .map((b) => (
                <path key={b.id} d={b.path} />
              ))}
          </g>
        )}
        {selected !== undefined && <path d={ringOf(selected)} className={styles.selected} />}
      </g>
      <g stroke={skin.shade} className={styles.over}>
        <Bust parts={figure.before} gradient={gradient} />
      </g>
    </g>
  );
});
