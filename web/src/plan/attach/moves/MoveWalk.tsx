import {
  CaretRightOutlined,
  LeftOutlined,
  PauseOutlined,
  RedoOutlined,
  RightOutlined,
} from "@ant-design/icons";
import { Button, Modal, Segmented, Select, Skeleton } from "antd";
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import { fetchAhead, useFigure, useMotion } from "../../../api/queries";
import type { Method, Step } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { Toggle } from "../../../ui/fields";
import { Trouble } from "../../../ui/Trouble";
import { pictureOf } from "../../../ui/movePicture";
import { StepText } from "../../../ui/StepText";
import { MovePicture } from "./MovePicture";
import { moments, type Moment } from "./walk";
import styles from "./MoveWalk.module.css";

const parts = [
  { value: "on", label: "Put on" },
  { value: "wrong", label: "Mistake" },
  { value: "off", label: "Take off" },
] as const;

type Part = (typeof parts)[number]["value"];

/** How long a picture stands before the next one comes by itself, seconds. */
const waits = [
  { value: 0, label: "by hand" },
  { value: 5, label: "after 5 s" },
  { value: 12, label: "after 12 s" },
  { value: 30, label: "after 30 s" },
];

/** How long a picture stands while a method plays, seconds. */
const playing = 1.6;

interface Props {
  title: string;
  method: Method;
  on: readonly Step[];
  off: readonly Step[];
  onClose: () => void;
}

/** A method walked through picture by picture: by hand, by key, by finger, or by itself. */
export function MoveWalk({ title, method, on, off, onClose }: Props) {
  const [part, setPart] = useState<Part>("on");
  const walks: Readonly<Record<Part, readonly Step[]>> = useMemo(
    () => ({
      on,
      off,
      wrong: [{ text: method.mistake, shows: { figure: method.wrong, first: 0, last: 0 } }],
    }),
    [on, off, method],
  );
  return (
    <Modal
      open
      centered
      title={title}
      width={900}
      footer={null}
      onCancel={onClose}
      className={styles.modal ?? ""}
    >
      <Segmented<Part>
        block
        size="large"
        aria-label="What is shown"
        value={part}
        options={[...parts]}
        onChange={setPart}
      />
      <Pictures key={part} steps={walks[part]} {...(part === "wrong" ? { mend: method.mend } : {})} />
    </Modal>
  );
}

function Pictures({ steps, mend }: { steps: readonly Step[]; mend?: string }) {
  const { leftHanded: left, set } = usePreferences();
  const all = useMemo(() => moments(steps), [steps]);
  const [at, setAt] = useState(0);
  const [round, setRound] = useState(0); // one more each time a picture moves again
  const [moving, setMoving] = useState(true);
  const [slow, setSlow] = useState(false);
  const [plays, setPlays] = useState(false);
  const [wait, setWait] = useState(0);
  const moment = all[at];
  const last = all.length - 1;

  const go = useCallback(
    (to: number) => {
      if (to < 0 || to > last) return;
      setMoving(to > at);
      setAt(to);
      setRound((r) => r + 1);
    },
    [at, last],
  );
  const again = useCallback(() => {
    setMoving(true);
    setRound((r) => r + 1);
  }, []);

  // Standing still, the next one comes by itself where it is asked for.
  const seconds = plays ? playing * (slow ? 2 : 1) : wait;
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const stands = useCallback(() => {
    clearTimeout(timer.current);
    if (seconds === 0) return;
    timer.current = setTimeout(() => (at < last ? go(at + 1) : setPlays(false)), seconds * 1000);
  }, [seconds, at, last, go]);
  useEffect(() => () => clearTimeout(timer.current), [stands]);

  const play = () => {
    if (!plays && at === last) go(0);
    setPlays(!plays);
  };
  const keys: Readonly<Record<string, () => void>> = {
    ArrowRight: () => go(at + 1),
    PageDown: () => go(at + 1),
    ArrowLeft: () => go(at - 1),
    PageUp: () => go(at - 1),
    Home: () => go(0),
    p: play,
    s: () => setSlow(!slow),
    r: again,
  };
  // Heard wherever the focus is: a button that is done with loses it.
  const hear = useRef(keys);
  useEffect(() => {
    hear.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const act = hear.current[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      const inField =
        event.target instanceof Element && event.target.closest("[role=combobox], [type=radio]");
      const off = event.key.length === 1 && !usePreferences.getState().letterKeys;
      if (!act || off || inField || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  // A finger that wipes turns the picture; one that taps makes it move again.
  const touched = useRef<number>(undefined);
  const onDown = (event: PointerEvent) => (touched.current = event.clientX);
  const onUp = (event: PointerEvent) => {
    if (touched.current === undefined) return;
    const across = event.clientX - touched.current;
    touched.current = undefined;
    if (Math.abs(across) < 30) again();
    else go(at + (across < 0 ? 1 : -1));
  };

  if (!moment) return <p>Nothing of this is drawn.</p>;
  const step = steps[moment.step];
  return (
    <div className={styles.walk}>
      <div className={styles.picture} onPointerDown={onDown} onPointerUp={onUp}>
        <Shown
          key={round}
          moment={moment}
          next={all[at + 1]}
          left={left}
          moves={moving}
          slow={slow}
          onStands={stands}
        />
      </div>
      <div className={styles.words}>
        <p className={styles.count}>
          Step {moment.step + 1} of {steps.length} · picture {at + 1} of {all.length}
        </p>
        <div aria-live="polite">
          <p className={styles.text}>{step && <StepText step={step} />}</p>
          {moment.own && <Caption moment={moment} />}
          {mend && (
            <p className={styles.mend}>
              <strong>Fix:</strong> {mend}
            </p>
          )}
        </div>
        {last > 0 && (
          <>
            <div className={styles.turn}>
              <Button
                size="large"
                icon={<LeftOutlined aria-hidden />}
                disabled={at === 0}
                onClick={() => go(at - 1)}
              >
                Back
              </Button>
              <Button
                size="large"
                type="primary"
                data-onward
                icon={at === last ? <RedoOutlined aria-hidden /> : <RightOutlined aria-hidden />}
                iconPlacement="end"
                onClick={() => go(at === last ? 0 : at + 1)}
                autoFocus
              >
                {at === last ? "From the start" : "Next"}
              </Button>
            </div>
            <div className={styles.ways}>
              <Button
                icon={plays ? <PauseOutlined aria-hidden /> : <CaretRightOutlined aria-hidden />}
                aria-pressed={plays}
                onClick={play}
              >
                {plays ? "Stop" : "Play all"}
              </Button>
              <Button icon={<RedoOutlined aria-hidden />} disabled={!moment.moves} onClick={again}>
                Again
              </Button>
              <label className={styles.wait}>
                <span>Goes on</span>
                <Select<number> aria-label="Goes on" value={wait} options={waits} onChange={setWait} />
              </label>
            </div>
          </>
        )}
        <div className={styles.toggles}>
          {last > 0 && <Toggle label="Slow" checked={slow} onChange={setSlow} />}
          <Toggle label="Left-handed" checked={left} onChange={(on) => set({ leftHanded: on })} />
        </div>
        <a
          className={styles.keep}
          href={pictureOf(moment.figure, moment.still, left, moment.back)}
          download={`${moment.figure} ${moment.still + 1}.svg`}
        >
          Keep this picture
        </a>
        {last > 0 && (
          <p className={styles.keys}>
            Keys: ← and → turn, P plays, R again, S slow. Wipe the picture to turn it, tap it to see it again.
          </p>
        )}
      </div>
    </div>
  );
}

interface ShownProps {
  moment: Moment;
  next: Moment | undefined;
  left: boolean;
  moves: boolean;
  slow: boolean;
  onStands: () => void;
}

function Shown({ moment, next, left, moves, slow, onStands }: ShownProps) {
  const { figure, still, back } = moment;
  const motion = useMotion({ figure, still, left, back });
  const words = useFigure(figure).data?.stills[still];
  useEffect(() => {
    if (next) fetchAhead({ figure: next.figure, still: next.still, left, back: next.back });
  }, [next, left]);
  if (motion.error) return <Trouble error={motion.error} retry={() => void motion.refetch()} />;
  if (!motion.data || !words) return <Skeleton.Node active className={styles.waiting ?? ""} />;
  return (
    <MovePicture
      key={motion.isPlaceholderData ? "before" : "now"}
      motion={motion.data}
      moves={moves && moment.moves && !motion.isPlaceholderData}
      slow={slow}
      says={words.says}
      onStands={onStands}
    />
  );
}

/** What a picture shows, and what lies over and under in it. */
function Caption({ moment }: { moment: Moment }) {
  const words = useFigure(moment.figure).data?.stills[moment.still];
  if (!words) return null;
  return (
    <>
      {!moment.back && <p className={styles.says}>{words.says}</p>}
      {words.holds.length > 0 && <p className={styles.holds}>In the picture: {words.holds.join(" · ")}</p>}
    </>
  );
}
