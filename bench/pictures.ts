/** Pictures: a document full of them, one dragged over a full sheet, a ground taken away. */
import type { Browser } from "playwright-core"
import { EditorState } from "prosemirror-state"
import { document, nodes, p } from "@biblon/core/document"
import { layoutDocument } from "@biblon/core/layout"
import { openTypesetter } from "@biblon/core/node"
import { writePng } from "../apps/server/src/demo/png"
import { cutAway } from "../apps/web/src/workers/pixels"
import { launch } from "./browser"
import { percentile } from "./figures"
import { opened, startApp } from "./desk"
import { fling } from "./phone"
import { proseParagraphs } from "./text"

export interface PictureFigures {
  /** 500 different pictures among text, opened to the first sheet. */
  pictures500OpenMs: number
  /** Frames of more than 50 ms in a fling through them, of so many. */
  picturesSlowFrames: number
  picturesFrames: number
  /** Layout after each step of a picture dragged over a full sheet, median and p95. */
  floatDragMs: number
  floatDragP95Ms: number
  /** The ground of 12 million pixels taken away, in the worker's own code. */
  backgroundMs: number
}

function floatDrag(): number[] {
  const typesetter = openTypesetter()
  const [first = "", ...rest] = proseParagraphs(900)
  const picture = (x: number, y: number) =>
    nodes.picture.create({
      asset: "0".repeat(64),
      pixels: [400, 300],
      format: {
        width: 160,
        wrap: "beside",
        across: { of: "margins", align: null, at: x },
        down: { of: "margins", at: y },
      },
    })
  let state = EditorState.create({ doc: document([p(picture(0, 0), first), ...rest.map((text) => p(text))]) })
  let layout = layoutDocument(typesetter, state.doc)
  return Array.from({ length: 120 }, (_, i) => {
    state = state.apply(state.tr.replaceWith(2, 3, picture((i * 7) % 300, (i * 11) % 500)))
    const start = performance.now()
    layout = layoutDocument(typesetter, state.doc, { mode: "sheets" }, layout)
    return performance.now() - start
  })
}

function backgroundMs(): number {
  const [width, height] = [4000, 3000]
  const data = new Uint8ClampedArray(4 * width * height)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      const inside = Math.hypot(x - width / 2, y - height / 2) < 1100
      data.set(inside ? [122, 31, 75, 255] : [226 + (x % 7), 222 + (y % 7), 210, 255], i)
    }
  const start = performance.now()
  cutAway({ data, width, height }, 0.12)
  return performance.now() - start
}

async function among(
  browser: Browser,
): Promise<Pick<PictureFigures, "pictures500OpenMs" | "picturesSlowFrames" | "picturesFrames">> {
  const { app, address } = await startApp()
  const texts = proseParagraphs(500 * 60)
  const blocks = Array.from({ length: 500 }, (_, n) => {
    const bytes = writePng(320, 240, (x, y) => [(x + n) % 256, (y * 2 + n * 3) % 256, (x + y + n * 7) % 256])
    const asset = app.assets.put(bytes, "image/png")
    return [
      p(texts[n % texts.length] as string),
      p(nodes.picture.create({ asset, pixels: [320, 240], format: { width: 240 } })),
    ]
  })
  const url = `${address}/d/${app.store.create(document(blocks.flat()), "Five hundred pictures", Date.now()).id}`
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  const { seen: pictures500OpenMs } = await opened(page, url, 3)
  const frames = await fling(page)
  await context.close()
  await app.close()
  return {
    pictures500OpenMs,
    picturesSlowFrames: frames.filter((frame) => frame > 50).length,
    picturesFrames: frames.length,
  }
}

export async function measurePictures(browser: Browser): Promise<PictureFigures> {
  const drag = floatDrag()
  return {
    ...(await among(browser)),
    floatDragMs: percentile(drag, 0.5),
    floatDragP95Ms: percentile(drag, 0.95),
    backgroundMs: backgroundMs(),
  }
}

if (process.argv[1]?.endsWith("pictures.ts")) {
  const browser = await launch()
  console.log(JSON.stringify(await measurePictures(browser), null, 2))
  await browser.close()
}
