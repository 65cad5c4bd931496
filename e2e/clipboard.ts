/** Copying and pasting as the browser tells a page of them, with what is meant to lie there. */
import type { Page } from "@playwright/test"

/** Pastes where the keys go. @param data what lies on the clipboard, by its media type */
export async function pasteInto(page: Page, data: Readonly<Record<string, string>>): Promise<void> {
  await page.evaluate((types) => {
    const clipboardData = new DataTransfer()
    for (const [type, text] of Object.entries(types)) clipboardData.setData(type, text)
    const event = new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true })
    document.activeElement?.dispatchEvent(event)
  }, data)
}

/** What copying there would put on the clipboard, as text and as HTML. */
export async function copiedFrom(page: Page): Promise<{ text: string; html: string }> {
  return page.evaluate(() => {
    const clipboardData = new DataTransfer()
    const event = new ClipboardEvent("copy", { clipboardData, bubbles: true, cancelable: true })
    document.activeElement?.dispatchEvent(event)
    return { text: clipboardData.getData("text/plain"), html: clipboardData.getData("text/html") }
  })
}
