import { startTransition, useEffect, useState } from "react";

/** Milliseconds after which a page that is not being painted goes on all the same. */
const unpainted = 100;

/**
 * A value that follows the given one when what else it changed has been painted: so that what
 * matters most is seen first, and is not held up by the rest.
 */
export function useAfterPaint<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    const follow = () => startTransition(() => setShown(() => value));
    let painted: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => (painted = setTimeout(follow)));
    const late = setTimeout(follow, unpainted);
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(painted);
      clearTimeout(late);
    };
  }, [value]);
  return shown;
}
