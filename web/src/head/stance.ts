import { useCallback, useEffect, useRef, useState } from "react";
import { calm } from "../ui/theme";
import { between, startStance, type Stance } from "./camera";

const turnTime = 380; // ms a view key takes

export const clampLat = (lat: number) => Math.max(-25, Math.min(90, lat));

/** The stance, from which it starts, and ways to change it at once or in a smooth turn. */
export function useStance(start = startStance) {
  const [stance, setStance] = useState<Stance>(start);
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
    const begun = performance.now();
    const time = calm() ? 0 : turnTime;
    const step = (now: number) => {
      const f = time === 0 ? 1 : Math.min(1, (now - begun) / time);
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
