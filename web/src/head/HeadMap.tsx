import { CloseOutlined } from "@ant-design/icons";
import { Button } from "antd";
import {
  memo,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
  type RefObject,
  type SyntheticEvent,
} from "react";
import type { PlanInput, PlanResult, Section } from "../api/types";
import { useKeys } from "../app/keys";
import { useSettled } from "../app/settled";
import { calm } from "../app/theme";
import { usePreferences } from "../app/preferences";
import { area, length } from "../app/units";
import { HairlineHandles, PartHandles, RowHandles } from "../byhand/handles";
import { HandBar, tools, type Tool } from "../byhand/HandBar";
import { useHandwork } from "../byhand/handwork";
import type { Change } from "../workspace/draft";
import { between, cameraAt, startStance, views, type Stance, type View } from "./camera";
import { drawnSections, HeadDrawing } from "./HeadDrawing";
import { useKeptFocus } from "./keptFocus";
import styles from "./HeadMap.module.css";
import { Legend } from "./Legend";
import { MapNotes } from "./MapNotes";
import { place, spoken, zoneName } from "./names";
import { open } from "./paths";
import { classOf, type Reading } from "./reading";
import { SmallHead, type Pictured } from "./SmallHead";
import { drawnBase } from "./tracks";
import { vec, type Flat } from "./vectors";

const degreesPerPixel = 0.42;
const tapSlop = 5; // px a finger may stray and still tap
const turnStep = 10; // degrees an arrow key turns
const turnTime = 380; // ms a view key takes

const clampLat = (lat: number) => Math.max(-25, Math.min(90, lat));

const stillTime = 120; // ms after which a head counts as still
const stripTime = 220; // ms after which the small views follow the big one

/** A value that keeps its identity while it stays the same when written out. */
function useSame<T>(value: T): T {
  const [kept, setKept] = useState(value);
  if (kept === value || JSON.stringify(kept) === JSON.stringify(value)) return kept;
  setKept(value);
  return value;
}

/** The stance, and ways to change it at once or in a smooth turn. */
function useStance() {
  const [stance, setStance] = useState<Stance>(startStance);
  const frame = useRef(0);
  const latest = useRef(stance);
  const put = useCallback((next: Stance) => {
    cancelAnimationFrame(frame.current);
    latest.current = { lon: next.lon, lat: clampLat(next.lat) };
    // One repaint for all the pointer moves of a frame.
    frame.current = requestAnimationFrame(() => setStance(latest.current));
  }, []);
  const turnTo = useCallback((to: Stance) => {
    cancelAnimationFrame(frame.current);
    const from = latest.current;
    const start = performance.now();
    const time = calm() ? 0 : turnTime;
    const step = (now: number) => {
      const f = time === 0 ? 1 : Math.min(1, (now - start) / time);
      latest.current = f === 1 ? to : between(from, to, f * f * (3 - 2 * f));
      setStance(latest.current);
      if (f < 1) frame.current = requestAnimationFrame(step);
    };
    frame.current = requestAnimationFrame(step);
  }, []);
  useEffect(() => () => cancelAnimationFrame(frame.current), []);
  const now = useCallback(() => latest.current, []);
  return { stance, now, put, turnTo };
}

interface Props {
  result: PlanResult;
  marked?: ReadonlySet<string> | undefined;
  /** Is kept at the stance the head is turned to. */
  stanceRef?: RefObject<Stance>;
  /** What to work on by hand; without it the head can only be read. */
  work?: { input: PlanInput; change: Change } | undefined;
}

/** The head, to be turned, tapped and read. */
export const HeadMap = memo(function HeadMap({ result, marked, stanceRef, work }: Props) {
  const { hair, skin, unit } = usePreferences();
  const { stance, now, put, turnTo } = useStance();
  useEffect(() => {
    if (stanceRef) stanceRef.current = stance;
  }, [stanceRef, stance]);
  const [wanted, setTool] = useState<Tool>("turn");
  const tool: Tool = work ? wanted : "turn";
  const [reading, setReading] = useState<Reading>("hair");
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ x: number; y: number; stance: Stance; moved: boolean; onHead: boolean }>(null);

  const { layout } = result;
  const keptFocus = useKeptFocus(svg, layout);
  const head = useSame(result.head);
  const sections = useMemo(() => drawnSections(layout, head.axesMm), [layout, head]);
  const base = useMemo(() => drawnBase(layout, head.axesMm), [layout, head]);
  const byId = useMemo(() => new Map(layout.sections.map((s) => [s.id, s])), [layout]);
  const camera = useMemo(() => cameraAt(head.axesMm, stance), [head, stance]);
  const view = useMemo(() => ({ camera, layout }), [camera, layout]);
  const turning = useSettled(view, stillTime) !== view;
  const pictured = useMemo(
    () => ({ head, layout, sections, base, plait: result.hair.plaitDiameterMm }),
    [head, layout, sections, base, result],
  );
  const still = useSettled(pictured, stripTime);
  const onView = useCallback((view: View) => turnTo(views[view]), [turnTo]);
  const hand = useHandwork({ work, layout, head, byId });
  const { picked, chosen } = hand;
  const current = picked[picked.length - 1];
  const tabStop = current?.id ?? layout.sections[0]?.id;
  const turnTool = useCallback(
    (next: Tool) => {
      setTool(next);
      hand.pickNone();
    },
    [hand],
  );
  /** The place on the picture under a pointer, in the picture's mm. */
  const placeOf = useCallback((event: { clientX: number; clientY: number }): Flat => {
    const to = svg.current?.getScreenCTM()?.inverse();
    if (!to) return [0, 0];
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(to);
    return [at.x, at.y];
  }, []);

  const onViewKey = useCallback(
    (key: string) => {
      const view = Object.values(views).find((v) => v.key === key);
      if (view) turnTo(view);
    },
    [turnTo],
  );
  useKeys(onViewKey);

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const under = tool === "sections" || tool === "leave" ? camera.under(placeOf(event)) : undefined;
    drag.current = { x: event.clientX, y: event.clientY, stance: now(), moved: false, onHead: !!under };
    if (under && tool === "leave") {
      event.preventDefault();
      hand.paint(under, true);
    }
  };
  const onPointerMove = (event: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.moved && Math.hypot(dx, dy) < tapSlop) return;
    if (!from.moved) svg.current?.setPointerCapture(event.pointerId);
    from.moved = true;
    if (from.onHead && tool === "leave") {
      const under = camera.under(placeOf(event));
      if (under) hand.paint(under, false);
      return;
    }
    if (from.onHead && tool === "sections") {
      hand.lasso.draw(placeOf(event));
      return;
    }
    put({ lon: from.stance.lon - dx * degreesPerPixel, lat: from.stance.lat + dy * degreesPerPixel });
  };
  const onPointerEnd = () => {
    // The click that follows a drag must still see that it was one.
    const done = drag.current;
    hand.lasso.close(camera);
    setTimeout(() => {
      if (drag.current === done) drag.current = null;
    });
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return; // undo, and the browser's own
    const section = sectionAt(event);
    if (section) onSectionKey(section, event);
    else onTurnKey(event);
  };

  const onTurnKey = (event: KeyboardEvent) => {
    const turn = {
      ArrowLeft: [turnStep, 0],
      ArrowRight: [-turnStep, 0],
      ArrowUp: [0, -turnStep],
      ArrowDown: [0, turnStep],
    }[event.key];
    if (!turn) return;
    event.preventDefault();
    put({ lon: now().lon + (turn[0] ?? 0), lat: now().lat + (turn[1] ?? 0) });
  };

  const onClick = (event: MouseEvent) => {
    const id = sectionAt(event);
    if (id && !drag.current?.moved && tool !== "leave") hand.pick(id, tool === "sections");
  };

  /** Turns the head until a section is well in sight. */
  const bringInSight = useCallback(
    (s: Section) => {
      const at = cameraAt(head.axesMm, now());
      if (at.facing(vec(s.centroid)) > 0.25) return;
      const [x, y, z] = vec(s.normal);
      turnTo({
        lon: (Math.atan2(y, x) * 180) / Math.PI,
        lat: clampLat((Math.atan2(z, Math.hypot(x, y)) * 180) / Math.PI),
      });
    },
    [head, now, turnTo],
  );

  // Marks behind the head would look like none: turn to the first of them.
  useEffect(() => {
    const shown = layout.sections.filter((s) => marked?.has(s.id));
    const at = cameraAt(head.axesMm, now());
    const first = shown[0];
    if (first && !shown.some((s) => at.facing(vec(s.centroid)) > 0.3)) bringInSight(first);
    // Only when other sections are marked, not whenever the layout changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [marked]);

  const onSectionKey = (id: string, event: KeyboardEvent) => {
    const here = byId.get(id);
    if (!here) return;
    if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      if (tool === "leave") hand.leave([here]);
      else hand.pick(id, tool === "sections");
      return;
    }
    if (event.key === "Escape") {
      hand.pickNone();
      svg.current?.focus();
      return;
    }
    if (tool === "sections" && hand.key(event.key, here)) {
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!way) return;
    event.preventDefault();
    const at = cameraAt(head.axesMm, now());
    const [x, y] = at.flat(vec(here.centroid));
    // The neighbour that lies most squarely that way on the picture.
    let best: Section | undefined;
    let most = 0.3;
    for (const other of here.neighbours.map((n) => byId.get(n))) {
      if (!other) continue;
      const [ox, oy] = at.flat(vec(other.centroid));
      const reach = Math.hypot(ox - x, oy - y) || 1;
      const along = ((ox - x) * (way[0] ?? 0) + (oy - y) * (way[1] ?? 0)) / reach;
      if (along > most) [best, most] = [other, along];
    }
    if (!best) return;
    if (tool !== "sections") hand.pick(best.id, false);
    bringInSight(best);
    const next = svg.current?.querySelector<SVGElement>(`[data-section="${CSS.escape(best.id)}"]`);
    next?.focus();
  };

  const classes = useMemo(
    () => (reading === "hair" ? undefined : new Map(layout.sections.map((s) => [s.id, classOf(s, reading)]))),
    [layout, reading],
  );
  const labels = useMemo(() => new Map(layout.sections.map((s) => [s.id, spoken(s, unit)])), [layout, unit]);
  const sectionAt = (event: SyntheticEvent) =>
    event.target instanceof Element ? event.target.getAttribute("data-section") : null;

  return (
    <section className={styles.map} data-work={work !== undefined} data-tool={tool} aria-label="Head map">
      {work && (
        <HandBar
          tool={tool}
          onTool={turnTool}
          both={hand.both}
          onBoth={hand.setBoth}
          brush={hand.brush}
          onBrush={hand.setBrush}
          picked={hand.summary}
          onAct={hand.act}
          leftOut={layout.leftOut.length}
          full={hand.full}
        />
      )}
      <div className={styles.stage}>
        {current && <SectionFacts section={current} onClose={hand.pickNone} />}
        <svg
          ref={svg}
          className={styles.head}
          data-head
          viewBox="-140 -124 280 264"
          tabIndex={0}
          role="group"
          aria-label={`Parted head, ${tools[tool].toLowerCase()}. Arrow keys turn it, keys 1 to 5 show top, back, left, right and front.`}
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerEnd}
          onPointerCancel={onPointerEnd}
          onClick={onClick}
          onKeyDown={onKeyDown}
          {...keptFocus}
        >
          <HeadDrawing
            head={head}
            layout={layout}
            sections={sections}
            base={base}
            camera={camera}
            hair={hair}
            skin={skin}
            plait={result.hair.plaitDiameterMm}
            marked={marked}
            chosen={chosen}
            tabStop={tabStop}
            labels={labels}
            turning={turning}
            classes={classes}
          />
          <MapNotes
            layout={layout}
            camera={camera}
            axes={head.axesMm}
            marked={marked}
            reading={reading}
            spots={tool === "leave" ? (work?.input.parting.leftOut ?? none) : none}
          />
          {work && tool === "sections" && (
            <g>
              <RowHandles {...hand.handles} camera={camera} placeOf={placeOf} picked={picked} />
              {current && picked.length === 1 && (
                <PartHandles {...hand.handles} camera={camera} placeOf={placeOf} section={current} />
              )}
              <path
                className={styles.lasso}
                d={hand.lasso.points.length > 1 ? open(hand.lasso.points, (p) => p) : ""}
              />
            </g>
          )}
          {work && tool === "hairline" && (
            <HairlineHandles
              head={head}
              input={work.input}
              camera={camera}
              placeOf={placeOf}
              change={work.change}
            />
          )}
        </svg>
      </div>
      <Legend layout={layout} reading={reading} onReading={setReading} hint={hints[tool]} />
      <Filmstrip pictured={still} onView={onView} />
    </section>
  );
});

const none: never[] = [];

const hints: Record<Tool, string> = {
  turn: "Drag to turn · tap a section to read it · keys 1 to 5 for views",
  sections: "Drag beside the head to turn it · keys 1 to 5 for views",
  leave: "Drag beside the head to turn it · keys 1 to 5 for views",
  hairline: "Drag to turn · keys 1 to 5 for views",
};

/** The fixed views, small; each turns the big head. */
const Filmstrip = memo(function Filmstrip({
  pictured,
  onView,
}: {
  pictured: Pictured;
  onView: (view: View) => void;
}) {
  const { head } = pictured;
  const cameras = useMemo(
    () =>
      (Object.keys(views) as View[]).map((view) => ({ view, camera: cameraAt(head.axesMm, views[view]) })),
    [head],
  );
  return (
    <div className={styles.strip} role="group" aria-label="Views">
      {cameras.map(({ view, camera }) => (
        <button key={view} type="button" className={styles.still} onClick={() => onView(view)}>
          <svg viewBox="-128 -118 256 236" aria-hidden>
            <SmallHead {...pictured} camera={camera} />
          </svg>
          <span>
            {views[view].name} <kbd>{views[view].key}</kbd>
          </span>
        </button>
      ))}
    </div>
  );
});

/** What one section is. */
function SectionFacts({ section, onClose }: { section: Section; onClose: () => void }) {
  const { unit } = usePreferences();
  const range = (s: { min: number; max: number }) => `${length(s.min, unit)} to ${length(s.max, unit)}`;
  return (
    <aside className={styles.facts} aria-live="polite">
      <Button
        className={styles.close ?? ""}
        type="text"
        size="small"
        icon={<CloseOutlined />}
        aria-label="Close the section's facts"
        onClick={onClose}
      />
      <h3>{zoneName(section.zone)}</h3>
      <p>{place(section)}</p>
      <dl>
        <dt>Width</dt>
        <dd title={range(section.widthMm)}>{length(section.widthMm.mean, unit)}</dd>
        <dt>Height</dt>
        <dd title={range(section.heightMm)}>{length(section.heightMm.mean, unit)}</dd>
        <dt>Area</dt>
        <dd>{area(section.areaMm2, unit)}</dd>
        <dt>To the hairline</dt>
        <dd>{length(section.hairlineMm, unit)}</dd>
        <dt>To the part line</dt>
        <dd>{length(section.partMm, unit)}</dd>
        <dt>Touches</dt>
        <dd>{section.neighbours.length} sections</dd>
        {section.pieces && (
          <>
            <dt>Carries</dt>
            <dd>{section.pieces} pieces</dd>
          </>
        )}
        {section.edited && (
          <>
            <dt>By hand</dt>
            <dd>joined or split</dd>
          </>
        )}
        {section.locked && (
          <>
            <dt>Locked</dt>
            <dd>left alone</dd>
          </>
        )}
      </dl>
    </aside>
  );
}
