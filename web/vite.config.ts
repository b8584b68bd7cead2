import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    // The content policy allows no data: fonts or scripts, only files of ours.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
  // A test's deadline is there for one that hangs; a slow machine is no fault.
  test: { testTimeout: 60_000, setupFiles: "./src/testSetup.ts" },
  server: { proxy: { "/api": "http://127.0.0.1:8467" } },
});
