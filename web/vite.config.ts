import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [
    react(),
    // The application on the device. Its page has a new nonce with every answer, so it is no file to
    // be kept beforehand: the worker fetches it.
    VitePWA({
      strategies: "injectManifest",
      srcDir: "sw",
      filename: "sw.ts",
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ["assets/**", "*.svg", "*.png", "*.webmanifest"],
        maximumFileSizeToCacheInBytes: 8 << 20,
      },
    }),
  ],
  build: {
    // The content policy allows no data: fonts or scripts, only files of ours.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
  // A test's deadline is there for one that hangs; a slow machine is no fault.
  test: {
    testTimeout: 60_000,
    setupFiles: "./src/testSetup.ts",
    maxWorkers: "100%",
    pool: "vmThreads",
    deps: { optimizer: { client: { enabled: true, include: ["@ant-design/icons/es"] } } },
    alias: [
      { find: /^antd$/, replacement: "antd/dist/antd.min.js" },
      { find: /^@ant-design\/icons$/, replacement: "@ant-design/icons/es" },
    ],
  },
  server: { proxy: { "/api": "http://127.0.0.1:8467" } },
});
