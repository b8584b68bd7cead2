import { useCallback, useRef, useState } from "react";

/** A canvas and its size in the pixels of the device. */
export function useDots() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ wide: 0, high: 0 });
  const watch = useCallback((element: HTMLCanvasElement | null) => {
    canvas.current = element;
    if (!element) return;
    const measure = () => {
      const dots = window.devicePixelRatio || 1;
      const { clientWidth, clientHeight } = element;
      setSize({ wide: Math.round(clientWidth * dots), high: Math.round(clientHeight * dots) });
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { canvas, size, watch };
}
