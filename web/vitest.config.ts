import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

/** Components against a real plant: `IRONPEEL_URL` says where; the Cargo test of e2e starts it. */
export default defineConfig({
  plugins: [react()],
  // The glossary of the documents is the interface's.
  server: { fs: { allow: [".", "../docs"] } },
  test: {
    environment: "jsdom",
    setupFiles: "tests/setup.ts",
    include: ["tests/**/*.test.{ts,tsx}"],
    testTimeout: 120_000,
    maxWorkers: 2,
  },
});
