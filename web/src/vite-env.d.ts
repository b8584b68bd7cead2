/// <reference types="vite/client" />

/** What starts a Go program in a browser; it comes with Go. */
declare module "*/wasm_exec.js";
