/// <reference types="vitest/config" />
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "/static/",
  plugins: [react()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  // Django puts this answer's nonce here (bakehouse/shell.py).
  html: { cspNonce: "NONCE_OF_THIS_ANSWER" },
  build: { outDir: "dist", assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  test: { include: ["tests/**/*.test.{ts,tsx}"] },
});
