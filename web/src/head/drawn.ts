import type { HeadShape, Layout } from "../api/types";
import { drawnBase, lyingPlaits, type DrawnBase, type FlatPlait } from "./cornrows";
import { add, mix, scale, vec, type Vec } from "./vectors";

/** A strand combed from a part to the root of its plait. */
export interface Strand {
  from: Vec;
  via: Vec;
}

/** A section made ready for drawing, once for every result. */
export interface DrawnSection {
  id: string;
  ring: readonly Vec[];
  root: Vec;
  normal: Vec;
  /** Diameter of its plait at the root, mm. */
  plait: number;
  /** How far the ring strays from the root, as the camera measures facing. */
  reach: number;
  /** The strands; worked out when they are first drawn. */
  strands: () => Strand[];
}

/** A parted head made ready for drawing. */
export interface Pictured {
  head: HeadShape;
  layout: Layout;
  sections: readonly DrawnSection[];
  base: DrawnBase;
  /** Plaits of sections that lie in the base. */
  lying: FlatPlait[];
}

export const pictured = (head: HeadShape, layout: Layout): Pictured => ({
  head,
  layout,
  sections: drawnSections(layout, head.axesMm),
  base: drawnBase(layout, head.axesMm),
  lying: lyingPlaits(layout, head.axesMm),
});

const strandEvery = 4; // mm of part line

function drawnSections(layout: Layout, axes: readonly number[]): DrawnSection[] {
  const [a, b, c] = vec(axes);
  return layout.sections.map((s) => {
    const ring = s.outline;
    const root = s.centroid;
    let reach = 0;
    for (const p of ring)
      reach = Math.max(reach, Math.hypot((p[0] - root[0]) / a, (p[1] - root[1]) / b, (p[2] - root[2]) / c));
    let strands: Strand[] | undefined;
    return {
      id: s.id,
      ring,
      root,
      normal: s.normal,
      plait: s.plaitMm,
      reach,
      strands: () => (strands ??= strandsOf(ring, root, s.normal)),
    };
  });
}

/** Strands at even steps along the parts, gathering to the root. */
function strandsOf(ring: readonly Vec[], root: Vec, normal: Vec): Strand[] {
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
