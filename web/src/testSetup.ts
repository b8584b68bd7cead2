/* What jsdom lacks of a browser, for every test that draws. */
if (typeof window !== "undefined") {
  window.matchMedia ??= (query: string) =>
    ({
      media: query,
      matches: query.includes("reduced-motion"),
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
      addListener: () => undefined,
      removeListener: () => undefined,
    }) as unknown as MediaQueryList;
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
}
export {};
