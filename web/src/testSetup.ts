/* What jsdom lacks of a browser, for every test that draws. */
if (typeof window !== "undefined") {
  const { ReadableStream, TextDecoderStream } = await import("node:stream/web");
  Object.assign(window, { ReadableStream, TextDecoderStream });
  const { configure } = await import("@testing-library/react");
  // What is waited for comes in its time; a slow machine is no fault. Whether something is hidden is not
  // asked, which would take the styles of every parent: what is not drawn is not there.
  configure({ asyncUtilTimeout: 15_000, defaultHidden: true });
  // Working the style of an element out of thousands of rules takes most of the time of a query by role, and
  // no test here asks for more than what is set on the element itself.
  window.getComputedStyle = (element) => (element as HTMLElement).style;
  if (typeof Reflect.get(window, "matchMedia") !== "function")
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
  if (typeof Reflect.get(window, "ResizeObserver") !== "function")
    Object.assign(window, {
      ResizeObserver: class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    });
}
export {};
