/* What jsdom lacks of a browser, for every test that draws. */
if (typeof window !== "undefined") {
  if (!("matchMedia" in window))
    Object.assign(window, {
      matchMedia: (query: string) => ({
        media: query,
        matches: query.includes("reduced-motion"),
        addEventListener: () => undefined,
        removeEventListener: () => undefined,
        addListener: () => undefined,
        removeListener: () => undefined,
      }),
    });
  if (!("ResizeObserver" in window))
    Object.assign(window, {
      ResizeObserver: class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    });
}
export {};
