import {
  BufferAttribute,
  BufferGeometry,
  Camera,
  DataTexture,
  GLSL3,
  InterleavedBuffer,
  InterleavedBufferAttribute,
  LinearFilter,
  LinearMipmapLinearFilter,
  LinearSRGBColorSpace,
  Matrix3,
  Mesh,
  RawShaderMaterial,
  RepeatWrapping,
  Scene,
  Vector2,
  Vector3,
  Vector4,
  WebGLRenderer,
} from "three";
import type { Stance } from "../camera";
import { cross, type Vec } from "../vectors";
import { clothMark, sleeveMark, type Mesh as Triangles, type Rgb } from "./figure";
import { hash, widthAt, type Strand } from "./strands";

/** A colour of hair from what lies in the dark to what takes the light, 0 to 1 each. */
export interface HairLight {
  dark: Rgb;
  bright: Rgb;
}

/** What is drawn, once for every drape. */
export interface DrapedScene {
  /** At rest, and with fewer places while it turns. */
  full: readonly Strand[];
  coarse: readonly Strand[];
  tones: readonly HairLight[];
  figure: Triangles;
  skin: Rgb;
  cloth: Rgb;
  ground: Rgb;
  /** The stature and the height of the vertex, mm; neckline, sleeve and foot as shares of stature. */
  stature: number;
  top: number;
  lines: { neckline: number; sleeve: number; foot: number };
}

/** The part of the picture that is seen: left, top, width and height, mm. */
export type Frame = readonly [number, number, number, number];

const common = `
precision highp float;
uniform mat3 turn; uniform vec4 frame;
vec4 placed(vec3 p, float nearer) {
  return vec4(p.x * frame.x + frame.z, p.y * frame.y + frame.w, -(p.z + nearer) / 1600.0, 1.0);
}`;

const figureCorners = `${common}
in vec3 position; in vec3 normal; in vec3 colour;
out vec3 n; out vec3 c; out vec3 at;
void main() { n = turn * normal; c = colour; at = position; gl_Position = placed(turn * position, 0.0); }`;

const figurePixels = `
precision highp float;
in vec3 n; in vec3 c; in vec3 at;
uniform vec3 ground; uniform vec3 skin; uniform vec3 cloth; uniform vec2 body; uniform vec3 lines;
out vec4 pixel;
void main() {
  vec3 m = normalize(n);
  if (!gl_FrontFacing) m = -m;
  float share = 1.0 - (body.y - at.z) / body.x;
  vec3 base = c;
  if (c.r > ${(clothMark - 0.5).toFixed(1)}) {
    // The shirt ends lower in front of the neck.
    float x = (at.x / body.x + 0.024) / 0.04, y = at.y / body.x / 0.07;
    float f = x * inversesqrt(x * x + y * y + 1e-9);
    float line = c.r > ${(sleeveMark - 0.5).toFixed(1)} ? lines.y : lines.x - (f > 0.0 ? 0.034 : 0.008) * f * f;
    float w = fwidth(share) * 0.7, over = smoothstep(line - w, line + w, share);
    base = c.r > ${(sleeveMark - 0.5).toFixed(1)} ? mix(skin, cloth, over) : mix(cloth, skin, over);
  }
  float lit = 0.5 + 0.5 * dot(m, normalize(vec3(-0.4, 0.7, 0.75)));
  float rim = pow(1.0 - max(0.0, m.z), 3.0);
  vec3 k = base * mix(vec3(0.52, 0.48, 0.46), vec3(1.0, 0.985, 0.97), lit) * (1.0 - 0.22 * rim);
  pixel = vec4(mix(ground, k, smoothstep(lines.z, lines.z + 0.08, share)), 1.0);
}`;

const hairCorners = `${common}
in vec3 position; in vec3 along; in vec3 normal; in vec4 kind; in vec3 dark; in vec3 bright;
out vec2 uv; out vec3 n; out vec3 aside; out vec3 inDark; out vec3 inLight; out float outer;
void main() {
  vec3 p = turn * position, v = turn * along;
  float l = length(v.xy);
  vec2 side = l > 1e-4 ? vec2(-v.y, v.x) / l : vec2(1.0, 0.0);
  p.xy += side * kind.x * kind.y * 0.5;
  uv = vec2(kind.x, kind.z); n = turn * normal; aside = vec3(side, 0.0);
  inDark = dark; inLight = bright; outer = kind.w;
  gl_Position = placed(p, 0.35 * kind.y);
}`;

const hairPixels = `
precision highp float;
in vec2 uv; in vec3 n; in vec3 aside; in vec3 inDark; in vec3 inLight; in float outer;
uniform float pitch; uniform sampler2D grain;
out vec4 pixel;
void main() {
  float c = uv.x, z = sqrt(max(0.0, 1.0 - c * c));
  vec4 g = texture(grain, vec2(uv.y / pitch, 0.5 + 0.49 * c));
  float bump = 1.3 * g.r, swell = g.g - 0.5;
  vec3 out_ = normalize(n);
  vec3 m = normalize(aside * (c + 0.15 * swell) * 0.8 + vec3(0.0, 0.0, z) * 0.55 + out_ * 0.75);
  vec3 sun = normalize(vec3(-0.4, 0.7, 0.75));
  float lit = 0.30 + 0.70 * max(0.0, dot(m, sun));
  float gloss = pow(max(0.0, dot(m, normalize(sun + vec3(0.0, 0.0, 1.0)))), 14.0);
  float within = smoothstep(-0.25, 0.15, out_.z); // seen from inside the curtain it is dark
  lit *= mix(0.42, 1.0, within) * mix(0.6, 1.0, outer);
  lit *= bump * mix(0.45, 1.0, smoothstep(0.0, 0.55, z));
  pixel = vec4(inDark * 0.6 + (inLight - inDark * 0.6) * lit * 1.1 + inLight * gloss * 0.2 * bump * within, 1.0);
}`;

const grainWide = 256;
const grainHigh = 64;

/** The pattern of a form once along its length: red how high it stands, green how it leans. */
function grainOf(kind: Strand["look"]["grain"]): DataTexture {
  const data = new Uint8Array(grainWide * grainHigh * 4);
  const wrap = (n: number, m: number) => ((n % m) + m) % m;
  const noise = (x: number, y: number, cells: number, k: number) => {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const ease = (f: number) => f * f * (3 - 2 * f);
    const [f, g] = [ease(x - i), ease(y - j)];
    const r = (p: number, q: number) => hash(wrap(p, cells) + 97 * k, q + 13);
    return (
      (r(i, j) * (1 - f) + r(i + 1, j) * f) * (1 - g) + (r(i, j + 1) * (1 - f) + r(i + 1, j + 1) * f) * g
    );
  };
  const heights = {
    // Wound, uneven: rounds of wrapping.
    loc: (u: number, across: number) => {
      const a = Math.asin(across);
      const rounds = 8 * u - a * 0.55;
      return [
        0.72 +
          0.3 * Math.abs(Math.sin(Math.PI * rounds)) ** 0.7 * (0.5 + 0.5 * noise(8 * u, 2 + a, 8, 1)) +
          0.22 * (noise(40 * u + a * 3, a * 4 + 5, 40, 2) - 0.5) +
          0.2 * (noise(5 * u, a * 1.2 + 4, 5, 3) - 0.5),
        0,
      ];
    },
    // Strands that cross from either side.
    braid: (u: number, across: number) => {
      const side = across > 0.1 * Math.sin(4 * Math.PI * u) ? 1 : -1;
      const f = wrap(2 * u + (side > 0 ? 0.5 : 0) - 0.34 * Math.abs(across), 1);
      return [
        (0.48 + 0.62 * Math.sin(Math.PI * f) ** 0.55) *
          (0.9 + 0.2 * noise(64 * u, 6 * Math.abs(across) + 20 * f, 64, 4)),
        (f - 0.5) * side,
      ];
    },
    // Two strands round each other.
    twist: (u: number, across: number) => {
      const f = wrap(2 * u - Math.asin(across) / Math.PI, 1);
      return [
        (0.42 + 0.68 * Math.sin(Math.PI * f) ** 0.6) * (0.88 + 0.24 * noise(48 * u + 6 * f, 9 * f, 48, 5)),
        f - 0.5,
      ];
    },
  } as const;
  const height = heights[kind];
  for (let x = 0; x < grainWide; x++)
    for (let y = 0; y < grainHigh; y++) {
      const [bump = 0, lean = 0] = height(x / grainWide, ((y + 0.5) / grainHigh) * 2 - 1);
      const o = (y * grainWide + x) * 4;
      data[o] = Math.max(0, Math.min(255, (bump / 1.3) * 255));
      data[o + 1] = 128 + 100 * lean;
      data[o + 3] = 255;
    }
  const texture = new DataTexture(data, grainWide, grainHigh);
  texture.wrapS = RepeatWrapping;
  texture.magFilter = LinearFilter;
  texture.minFilter = LinearMipmapLinearFilter;
  texture.generateMipmaps = true;
  texture.needsUpdate = true;
  return texture;
}

const perCorner = 19;

/** Ribbons that turn themselves to the viewer. What lies outside is drawn first: what it hides costs nothing. */
function ribbons(strands: readonly Strand[], tones: readonly HairLight[]): BufferGeometry {
  const rings = strands.reduce((n, s) => n + s.points.length + 2, 0);
  const corners = new Float32Array(rings * 2 * perCorner);
  const triangles = new Uint32Array(rings * 6);
  let [o, k, at] = [0, 0, 0];
  for (const s of [...strands].sort((p, q) => q.outer - p.outer)) {
    const n = s.points.length;
    const tone = tones[s.piece];
    if (!tone || n < 2) continue;
    const shade = 0.92 + 0.16 * hash(s.seed, 31);
    let along = 40 * hash(s.seed, 51);
    for (let i = 0; i < n + 2; i++) {
      // The tip is round: two rings more.
      const j = Math.min(n - 1, i);
      const p = s.points[j];
      const [before, after] = [s.points[Math.max(0, j - 1)], s.points[Math.min(n - 1, j + 1)]];
      const normal = s.normals[j];
      if (!p || !before || !after || !normal) continue;
      const d: Vec = [after[0] - before[0], after[1] - before[1], after[2] - before[2]];
      const l = Math.hypot(...d) || 1;
      if (i > 0 && i < n) along += Math.hypot(p[0] - before[0], p[1] - before[1], p[2] - before[2]);
      let wide = widthAt(s, j / (n - 1)) * (i === 0 ? 0.35 : 1);
      const over = i < n ? 0 : (i - n + 1) * 0.25 * wide;
      if (i >= n) wide *= i === n ? 0.75 : 0.1;
      const outer = p[2] < 0 ? s.outer : 0.6 + 0.4 * s.outer;
      for (const side of [-1, 1]) {
        corners.set(
          [
            p[0] + (over * d[0]) / l,
            p[1] + (over * d[1]) / l,
            p[2] + (over * d[2]) / l,
            d[0] / l,
            d[1] / l,
            d[2] / l,
            ...normal,
            side,
            wide,
            along + over,
            outer,
            tone.dark[0] * shade,
            tone.dark[1] * shade,
            tone.dark[2] * shade,
            tone.bright[0] * shade,
            tone.bright[1] * shade,
            tone.bright[2] * shade,
          ],
          o,
        );
        o += perCorner;
      }
      if (i > 0) {
        triangles.set([at - 2, at - 1, at, at - 1, at + 1, at], k);
        k += 6;
      }
      at += 2;
    }
  }
  const buffer = new InterleavedBuffer(corners.subarray(0, o), perCorner);
  const geometry = new BufferGeometry();
  const parts = [
    ["position", 3],
    ["along", 3],
    ["normal", 3],
    ["kind", 4],
    ["dark", 3],
    ["bright", 3],
  ] as const;
  let offset = 0;
  for (const [name, size] of parts) {
    geometry.setAttribute(name, new InterleavedBufferAttribute(buffer, size, offset));
    offset += size;
  }
  geometry.setIndex(new BufferAttribute(triangles.subarray(0, k), 1));
  return geometry;
}

/** The drape drawn by the graphics processor, or by software that stands in for one. */
export class DrapeGL {
  private readonly renderer: WebGLRenderer;
  private readonly camera = new Camera();
  private readonly full = new Scene();
  private readonly coarse = new Scene();
  private readonly turn = new Matrix3();
  private readonly frame = new Vector4();
  private owned: { dispose: () => void }[] = [];

  private constructor(canvas: HTMLCanvasElement, context: WebGL2RenderingContext) {
    this.renderer = new WebGLRenderer({ canvas, context, powerPreference: "low-power" });
    this.renderer.outputColorSpace = LinearSRGBColorSpace; // colours are mixed as they are written
    this.renderer.setPixelRatio(1);
  }

  /** Undefined where the browser has no WebGL. */
  static on(canvas: HTMLCanvasElement): DrapeGL | undefined {
    const context = canvas.getContext("webgl2", {
      alpha: true,
      antialias: true,
      powerPreference: "low-power",
    });
    return context ? new DrapeGL(canvas, context) : undefined;
  }

  /** Takes a drape to be drawn in place of the last. */
  show(scene: DrapedScene) {
    this.forget();
    const shared = { turn: { value: this.turn }, frame: { value: this.frame } };
    const figure = new RawShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: figureCorners,
      fragmentShader: figurePixels,
      side: 2,
      uniforms: {
        ...shared,
        ground: { value: new Vector3(...scene.ground) },
        skin: { value: new Vector3(...scene.skin) },
        cloth: { value: new Vector3(...scene.cloth) },
        body: { value: new Vector2(scene.stature, scene.top) },
        lines: { value: new Vector3(scene.lines.neckline, scene.lines.sleeve, scene.lines.foot) },
      },
    });
    const shape = new BufferGeometry();
    const buffer = new InterleavedBuffer(new Float32Array(scene.figure.corners), 9);
    ["position", "normal", "colour"].forEach((name, i) =>
      shape.setAttribute(name, new InterleavedBufferAttribute(buffer, 3, 3 * i)),
    );
    shape.setIndex(new BufferAttribute(new Uint32Array(scene.figure.triangles), 1));
    this.owned.push(figure, shape);
    for (const [into, strands] of [
      [this.full, scene.full],
      [this.coarse, scene.coarse],
    ] as const) {
      for (const [look, own] of byLook(strands)) {
        const grain = grainOf(look.grain);
        const thick = own[0]?.thick ?? 8;
        const hair = new RawShaderMaterial({
          glslVersion: GLSL3,
          vertexShader: hairCorners,
          fragmentShader: hairPixels,
          side: 2,
          uniforms: { ...shared, pitch: { value: look.pitch * thick }, grain: { value: grain } },
        });
        const geometry = ribbons(own, scene.tones);
        this.owned.push(grain, hair, geometry);
        into.add(seen(new Mesh(geometry, hair), 0));
      }
      into.add(seen(new Mesh(shape, figure), 1));
    }
  }

  /** Draws it as seen from a stance, in pixels of width and height. */
  draw(stance: Stance, [left, top, wide, high]: Frame, width: number, height: number, moving: boolean) {
    const [lon, lat] = [(stance.lon * Math.PI) / 180, (stance.lat * Math.PI) / 180];
    const to: Vec = [Math.cos(lat) * Math.cos(lon), Math.cos(lat) * Math.sin(lon), Math.sin(lat)];
    const right: Vec = [-Math.sin(lon), Math.cos(lon), 0];
    const up = cross(to, right);
    this.turn.set(...right, ...up, ...to);
    const scale = Math.min(width / wide, height / high);
    const [x, y] = [width / 2 - scale * (left + wide / 2), height / 2 - scale * (top + high / 2)];
    this.frame.set((2 * scale) / width, (2 * scale) / height, (2 * x) / width - 1, 1 - (2 * y) / height);
    this.renderer.setSize(width, height, false);
    this.renderer.render(moving ? this.coarse : this.full, this.camera);
  }

  private forget() {
    this.full.clear();
    this.coarse.clear();
    this.owned.forEach((x) => x.dispose());
    this.owned = [];
  }

  dispose() {
    this.forget();
    this.renderer.dispose();
  }
}

const seen = (mesh: Mesh, order: number) => {
  mesh.frustumCulled = false; // placed by the shader, where three does not look
  mesh.renderOrder = order;
  return mesh;
};

/** Strands by how they look: those of one look are drawn at once. */
function byLook(strands: readonly Strand[]): Map<Strand["look"], Strand[]> {
  const out = new Map<Strand["look"], Strand[]>();
  for (const s of strands) {
    const own = out.get(s.look);
    if (own) own.push(s);
    else out.set(s.look, [s]);
  }
  return out;
}
