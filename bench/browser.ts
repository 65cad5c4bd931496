import { chromium, type Browser } from "playwright-core"
import { chromiumOptions } from "../scripts/chromium.mjs"

export function launch(): Promise<Browser> {
  return chromium.launch(chromiumOptions)
}

export function percentile(values: readonly number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN
}
