import { defineConfig } from "@playwright/test"
import { togetherOptions as launchOptions } from "../scripts/chromium.mjs"

export default defineConfig({
  testDir: "tests",
  outputDir: "../test-results/journeys",
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: 2,
  // The machine is shared: what fails beside a noisy neighbour is run once more, and named at the end.
  retries: 1,
  reporter: [["list"], ["json", { outputFile: "../test-results/playwright.json" }]],
  use: { launchOptions, locale: "en-GB", timezoneId: "Europe/London", trace: "off", actionTimeout: 20_000 },
  projects: [
    { name: "wide", testIgnore: /\.phone\.spec/, use: { viewport: { width: 1280, height: 800 } } },
    {
      name: "phone",
      testMatch: /\.phone\.spec/,
      use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
    },
  ],
})
