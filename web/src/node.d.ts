/* What tests take from Node; the application itself never sees it. */
declare module "node:stream/web" {
  export const ReadableStream: typeof globalThis.ReadableStream;
  export const TextDecoderStream: typeof globalThis.TextDecoderStream;
}
