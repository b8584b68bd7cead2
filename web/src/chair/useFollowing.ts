import { useCallback, useEffect, useState, useSyncExternalStore } from "react";
import type { Shown } from "./following";
import { Following } from "./following";

const tickTime = 15_000; // ms after which times on the page are looked at again

/** An install followed on this device. */
export function useFollowing(id: string) {
  const [following, setFollowing] = useState<Following>();
  const [error, setError] = useState<Error>();
  const [round, setRound] = useState(0);
  useEffect(() => {
    let over = false;
    let end: (() => void) | undefined;
    Following.open(id).then(
      (opened) => {
        if (over) return;
        end = opened.start();
        setFollowing(opened);
      },
      (reason: unknown) => {
        if (!over) setError(reason instanceof Error ? reason : new Error(String(reason)));
      },
    );
    return () => {
      over = true;
      end?.();
      setFollowing(undefined);
    };
  }, [id, round]);
  const retry = useCallback(() => {
    setError(undefined);
    setRound((r) => r + 1);
  }, []);
  return { following, error, retry };
}

/** What is shown of it now. */
export function useShown(following: Following): Shown {
  useEffect(() => {
    const timer = setInterval(() => following.tick(), tickTime);
    return () => clearInterval(timer);
  }, [following]);
  return useSyncExternalStore(following.hear, following.snapshot);
}
