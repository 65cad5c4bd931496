import { chromium, type Browser } from "playwright-core"
import { chromiumOptions } from "../scripts/chromium.mjs"

export function launch(): Promise<Browser> {
  return chromium.launch(chromiumOptions)
}
