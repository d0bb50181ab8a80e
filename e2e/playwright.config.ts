import { defineConfig } from "@playwright/test";
import { stateOf } from "./signIn";

export default defineConfig({
  globalSetup: "./signIn.ts",
  testDir: "journeys",
  outputDir: "results",
  fullyParallel: true,
  workers: 2,
  forbidOnly: Boolean(process.env.CI),
  reporter: [["list"], ["./lastWords.ts"]],
  timeout: 240_000,
  // A machine that does much else answers late, and right.
  expect: { timeout: 45_000 },
  use: {
    baseURL: process.env.IRONPEEL_URL ?? "http://127.0.0.1:7420",
    storageState: stateOf("technologist"),
    viewport: { width: 1280, height: 800 },
    // A page is what the server sends, but where a journey is of what is kept.
    serviceWorkers: "block",
    launchOptions: {
      // Without the windows of a desktop: half of the work for the same pages.
      executablePath: "/usr/bin/chromium-headless-shell",
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"],
    },
  },
});
