import { existsSync } from "node:fs"

const args = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
]

/** How Debian's Chromium is started, for measurements and pictures. */
export const chromiumOptions = { executablePath: "/usr/bin/chromium", args }

const shell = "/usr/bin/chromium-headless-shell"

/** For journeys: the same without what surrounds its pages, where Debian has it, takes three quarters of the time. */
export const journeyOptions = { executablePath: existsSync(shell) ? shell : chromiumOptions.executablePath, args }

/** The same with all pages of a server in one process, which has read the program once. */
export const togetherOptions = { ...journeyOptions, args: [...args, "--process-per-site"] }
