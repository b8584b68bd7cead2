import { useState } from "react";

/** A value that keeps its identity while it stays the same when written out. */
export function useSame<T>(value: T): T {
  const [kept, setKept] = useState(value);
  if (kept === value || JSON.stringify(kept) === JSON.stringify(value)) return kept;
  setKept(value);
  return value;
}
