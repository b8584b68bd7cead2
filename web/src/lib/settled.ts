import { useEffect, useState } from "react";

/** A value as it last was when it had not changed for a while. */
export function useSettled<T>(value: T, time: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), time);
    return () => clearTimeout(timer);
  }, [value, time]);
  return settled;
}
