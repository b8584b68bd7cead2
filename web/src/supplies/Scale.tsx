import { Button } from "antd";
import { useEffect, useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { server } from "../api/client";
import type { Item } from "../api/types";
import { CountField } from "../ui/fields";
import { Trouble } from "../ui/Trouble";
import styles from "./Scale.module.css";

interface Props {
  item: Item;
  onWeighed: (massG: number) => void;
}

const pace = 260; // ms between readings

/** The simulated scale: packs are laid on it, it comes to rest, and what one piece weighs follows. */
export function Scale({ item, onWeighed }: Props) {
  const [packs, setPacks] = useState(1);
  const [step, setStep] = useState(0);
  const weigh = useMutation({ mutationFn: () => server.weigh(item, packs) });
  const readings = weigh.data?.readingsG ?? [];
  const rests = readings.length > 0 && step >= readings.length - 1;
  useEffect(() => {
    if (readings.length === 0 || rests) return;
    const timer = setTimeout(() => setStep((s) => s + 1), pace);
    return () => clearTimeout(timer);
  }, [readings.length, rests, step]);
  const shown = readings[Math.min(step, readings.length - 1)];
  const each =
    rests && shown !== undefined && weigh.data
      ? (shown - packs * weigh.data.bagG) / (packs * item.pack.units)
      : undefined;
  return (
    <div className={styles.scale}>
      <div className={styles.window} role="status" aria-label="Scale">
        <strong>{shown === undefined ? "0.0" : shown.toFixed(1)} g</strong>
        <span>{shown === undefined ? "empty" : rests ? "at rest" : "swinging …"}</span>
      </div>
      <CountField label="Packs on it" path="packs" value={packs} min={1} max={20} onChange={setPacks} />
      <Button
        loading={weigh.isPending}
        onClick={() => {
          setStep(0);
          weigh.mutate();
        }}
      >
        Weigh it
      </Button>
      {weigh.error && <Trouble error={weigh.error} />}
      {each !== undefined && weigh.data && (
        <Button type="primary" onClick={() => onWeighed(Math.round(each * 100) / 100)}>
          Use {each.toFixed(2)} g
        </Button>
      )}
      {each !== undefined && weigh.data && (
        <p>
          {packs * weigh.data.bagG} g for {packs === 1 ? "the bag" : `${packs} bags`} taken off, shared by{" "}
          {packs * item.pack.units}.
        </p>
      )}
    </div>
  );
}
