import {
  lazy,
  memo,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
  type RefObject,
  type SyntheticEvent,
} from "react";
import type { HeadShape, Layout, Notice, Section } from "../api/types";
import { useKeys } from "../lib/keys";
import { useNarrow } from "../lib/narrow";
import { usePreferences } from "../lib/preferences";
import { useSame } from "../lib/same";
import { useSettled } from "../lib/settled";
import { cameraAt, views, type Stance, type View } from "./camera";
import { pictured as picturedOf } from "./drawn";
import { Filmstrip } from "./Filmstrip";
import { HeadPicture, type Box } from "./HeadPicture";
import { HeadSections } from "./HeadSections";
import { useKeptFocus } from "./keptFocus";
import styles from "./HeadMap.module.css";
import { Legend } from "./Legend";
import { MapNotes } from "./MapNotes";
import { focusOn, leadsOn, neighbourThatWay } from "./neighbour";
import { spoken } from "./names";
import { hooksOf, readings as ownReadings, type Reading } from "./reading";
import { useStance } from "./stance";
import type { HeadLayer, HeadTool, View as ToolView } from "./tool";
import { placeOn, turnByKey, useTurning } from "./turning";
import { useInSight } from "./useInSight";
import { useTurnTool } from "./useTurnTool";

/* Loads once a section is tapped. */
const SectionFacts = lazy(async () => ({ default: (await import("./SectionFacts")).SectionFacts }));

const stillTime = 120; // ms after which a head counts as still
const stripTime = 220; // ms after which the small views follow the big one

const box: Box = [-140, -124, 280, 264];

const noReadings: readonly Reading[] = [];
const noKeys: readonly string[] = [];
const noLayers: readonly HeadLayer[] = [];

interface Props {
  head: HeadShape;
  layout: Layout;
  marked?: ReadonlySet<Notice["about"][number]> | undefined;
  /** Is kept at the stance the head is turned to. */
  stanceRef?: RefObject<Stance>;
  /** What a finger on the head does; without it the head is turned and read. */
  tool?: HeadTool | undefined;
  /** Stands over the head: the choice of tools and what they can do. */
  bar?: ReactNode;
  /** What the head can be coloured by, besides what the parting itself tells. */
  readings?: readonly Reading[];
  /** Readings of the parting that are left out, by key. */
  without?: readonly string[];
  /** What can be laid over the head. */
  layers?: readonly HeadLayer[];
  /** What to colour it by, or to lay over it, at first. */
  startReading?: string | undefined;
  /** Is told what it is coloured by, or what is laid over it. */
  onReading?: (key: string | undefined) => void;
}

/** The head, to be turned, tapped and read. */
export const HeadMap = memo(function HeadMap({
  head: shape,
  layout,
  marked,
  stanceRef,
  tool: given,
  bar,
  readings = noReadings,
  without = noKeys,
  layers = noLayers,
  startReading,
  onReading,
}: Props) {
  const { unit } = usePreferences();
  // Where there is no room beside the head, what is picked to be changed is not read.
  const narrow = useNarrow();
  const { stance, now, put, turnTo } = useStance();
  useEffect(() => {
    if (stanceRef) stanceRef.current = stance;
  }, [stanceRef, stance]);
  const [colour, setColour] = useState(startReading);
  const [wanted, setWanted] = useState(startReading);
  if (wanted !== startReading) {
    // Another step of the plan asks for another colour.
    setWanted(startReading);
    setColour(startReading);
  }
  const all = useMemo(
    () => [...ownReadings.filter((r) => !without.includes(r.key)), ...readings],
    [readings, without],
  );
  const reading = all.find((r) => r.key === colour);
  const layer = layers.find((l) => l.key === colour);
  const shownBox = layer?.box ?? box;
  useEffect(() => onReading?.(colour), [colour, onReading]);
  const svg = useRef<SVGSVGElement>(null);

  const byId = useMemo(() => new Map(layout.sections.map((s) => [s.id, s])), [layout]);
  const turnTool = useTurnTool(byId);
  // Under a layer there is no section to touch: the head is turned.
  const tool = layer ? { ...turnTool, hint: layer.hint } : (given ?? turnTool);
  const head = useSame(shape);
  const picture = useMemo(() => picturedOf(head, layout), [head, layout]);
  const camera = useMemo(() => cameraAt(head.axesMm, stance), [head, stance]);
  const view = useMemo(() => ({ camera, picture }), [camera, picture]);
  const still = useSettled(view, stillTime);
  const moving = still !== view;
  const keptFocus = useKeptFocus(svg, still.picture.layout);
  const strip = useSettled(picture, stripTime);
  const onView = useCallback((view: View) => turnTo(views[view]), [turnTo]);
  const { picked, chosen } = tool;
  const current = picked[picked.length - 1];
  const tabStop = current?.id;
  const placeOf = useCallback(
    (event: { clientX: number; clientY: number }) => placeOn(svg.current, event),
    [],
  );

  const onViewKey = useCallback(
    (key: string) => {
      const view = Object.values(views).find((v) => v.key === key);
      if (view) turnTo(view);
    },
    [turnTo],
  );
  useKeys(onViewKey);

  const turning = useTurning({ now, put }, svg, {
    ...(tool.drag && {
      taking: {
        begins: (event) => {
          const under = camera.under(placeOf(event));
          if (under && tool.drag?.begin) {
            event.preventDefault();
            tool.drag.begin(under);
          }
          return under !== undefined;
        },
        moves: (event) => {
          const at = placeOf(event);
          tool.drag?.move(at, camera.under(at));
        },
        ends: () => tool.drag?.end(camera),
      },
    }),
  });

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return; // undo, and the browser's own
    const section = sectionAt(event);
    if (section) onSectionKey(section, event);
    else turnByKey({ now, put }, event);
  };

  const tap = (s: Section) => (tool.tap ? tool.tap(s) : tool.pick(s.id));

  const onClick = (event: MouseEvent) => {
    if (turning.dragged()) return;
    // Shapes that the head moves on under are not where they are seen.
    const section = moving ? undefined : byId.get(sectionAt(event) ?? "");
    // What is painted at the press is not tapped once more.
    if (section && !tool.drag?.begin) tap(section);
    if (section || !tool.tapPlace) return;
    const under = camera.under(placeOf(event));
    if (under) tool.tapPlace(under, camera);
  };

  const bringInSight = useInSight({ now, turnTo }, head, layout, marked);

  const onSectionKey = (id: string, event: KeyboardEvent) => {
    const here = byId.get(id);
    if (!here) return;
    if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      tap(here);
      return;
    }
    if (event.key === "Escape") {
      tool.pickNone();
      svg.current?.focus();
      return;
    }
    if (tool.press?.(event.key, here)) {
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    if (!leadsOn(event.key)) return;
    event.preventDefault();
    const next = neighbourThatWay(event.key, here, byId, cameraAt(head.axesMm, now()));
    if (!next) return;
    if (tool.picksOnTheWay) tool.pick(next.id);
    bringInSight(next);
    focusOn(svg.current, next);
  };

  const resting = still.picture.layout;
  const classes = useMemo(
    () => reading && new Map(layout.sections.map((s) => [s.id, reading.of(s)])),
    [layout, reading],
  );
  const hooks = useMemo(() => {
    const of = reading?.ofHook;
    return of && hooksOf(layout).map(of);
  }, [layout, reading]);
  const labels = useMemo(
    () =>
      new Map(
        resting.sections.map((s) => [s.id, spoken(s, unit) + (reading ? `; ${reading.of(s).name}` : "")]),
      ),
    [resting, unit, reading],
  );
  const sectionAt = (event: SyntheticEvent) =>
    event.target instanceof Element ? event.target.getAttribute("data-section") : null;

  return (
    <section className={styles.map} data-work={bar !== undefined} data-tool={tool.key} aria-label="Head map">
      {bar}
      <div className={styles.stage}>
        {current && !(given && narrow) && (
          <Suspense fallback={null}>
            <SectionFacts section={current} says={reading?.says?.(current)} onClose={tool.pickNone} />
          </Suspense>
        )}
        <div className={styles.head}>
          {layer?.picture({ pictured: picture, camera, stance, box: shownBox, moving, small: false }) ?? (
            <HeadPicture
              pictured={picture}
              camera={camera}
              box={box}
              detail={moving ? "moving" : "full"}
              classes={classes}
              hooks={hooks}
              marked={marked}
              chosen={chosen}
            />
          )}
          <svg
            ref={svg}
            className={styles.over}
            data-head
            data-still={!moving}
            viewBox={shownBox.join(" ")}
            tabIndex={0}
            role="group"
            aria-label={`Parted head, ${tool.name.toLowerCase()}. Arrow keys turn it, keys 1 to 5 show top, back, left, right and front.`}
            {...turning.handlers}
            onClick={onClick}
            onKeyDown={onKeyDown}
            {...keptFocus}
          >
            {layer?.over?.({ pictured: picture, camera, stance, box: shownBox, moving, small: false })}
            {!layer && (
              <HeadSections
                pictured={still.picture}
                camera={still.camera}
                labels={labels}
                chosen={chosen}
                marked={marked}
                tabStop={tabStop}
                stale={moving}
              />
            )}
            {!layer && <MapNotes layout={layout} camera={camera} marked={marked} reading={reading} />}
            {!layer && <Over tool={tool} head={head} camera={camera} placeOf={placeOf} />}
          </svg>
        </div>
      </div>
      <div className={styles.foot}>
        <Legend
          layout={layout}
          readings={all}
          layers={layers}
          layer={layer}
          reading={reading}
          onReading={setColour}
          hint={tool.hint}
        />
        <Filmstrip pictured={strip} layer={layer} onView={onView} />
      </div>
    </section>
  );
});

/** What a tool draws over the head. */
const Over = ({ tool, ...view }: ToolView & { tool: HeadTool }) => tool.over?.(view) ?? null;
