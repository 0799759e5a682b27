/// <reference types="vitest/config" />
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

const read = (path: string) => readFileSync(new URL(path, import.meta.url));
// What a tablet kept of the API's answers is good as long as the API says the same.
const reads = createHash("sha256").update(read("./src/api/schema.d.ts")).digest("hex").slice(0, 12);

export default defineConfig({
  base: "/static/",
  plugins: [
    react(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src",
      filename: "sw.ts",
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ["**/*.{js,css,woff2,svg,png,webmanifest}"],
        // For builders, and for alphabets that no word here is written in.
        globIgnores: ["**/Drawings-*", "**/*-{cyrillic,cyrillic-ext,greek,vietnamese}-*"],
        modifyURLPrefix: { "": "/static/" },
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  define: { __READS__: JSON.stringify(reads) },
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  // Django puts this answer's nonce here (bakehouse/shell.py).
  html: { cspNonce: "NONCE_OF_THIS_ANSWER" },
  build: {
    outDir: "dist",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      // what three rooms share comes with the first of them: many small files cost more
      output: { codeSplitting: { groups: [{ name: "shared", minShareCount: 3 }] } },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  test: {
    include: ["tests/**/*.test.{ts,tsx}"],
    pool: "threads",
    // what they all import is read once for a thread, and not for each of them
    isolate: false,
    maxWorkers: 2,
    setupFiles: ["tests/patience.ts"],
    expect: { poll: { timeout: 20_000 } },
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
