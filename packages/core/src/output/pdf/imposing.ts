/** Sheets on the sides of paper, to be printed: each is drawn once and shown wherever it lies. */
import { zlibSync } from "fflate"
import { documentAttrs } from "../../document"
import type { Layout } from "../../layout"
import { onBothSides, sidesOf, type PrintPlan } from "../printing"
import { drawSheet } from "./content"
import { num, PdfFile, ref, textString, type Ref } from "./objects"
import { Supplies, type PdfOptions } from "./supplies"

/**
 * Yields the number of sheets done after each; returns the file, or null where the plan names no sheets.
 * It has neither tags nor bookmarks: it is for paper.
 */
export function* writeImposed(
  layout: Layout,
  plan: PrintPlan,
  options: PdfOptions,
): Generator<number, Uint8Array | null> {
  const sides = sidesOf(
    plan,
    layout.placed.map(({ sheet: { width, height } }) => ({ width, height })),
  )
  if (!sides) return null
  const file = new PdfFile(options.deflate ?? ((bytes) => zlibSync(bytes, { level: 6 })))
  const catalog = file.reserve()
  const pages = file.reserve()
  const supplies = new Supplies(file, options)
  const forms = new Map<number, Ref>()
  for (const index of new Set(sides.flatMap(({ placed }) => placed.map(({ sheet }) => sheet)))) {
    const placed = layout.placed[index]
    if (!placed) continue
    const { width, height } = placed.sheet
    const drawn = drawSheet(placed, options.fonts, supplies.face, supplies.image)
    forms.set(
      index,
      file.addStream(
        drawn.content,
        `/Type/XObject/Subtype/Form/BBox[0 0 ${num(width)} ${num(height)}]/Resources${supplies.resources(drawn)}`,
      ),
    )
    yield forms.size
  }
  const kids = sides.map(({ width, height, placed }) => {
    const shown = placed.flatMap(({ sheet, x, y, scale }) => {
      const form = forms.get(sheet)
      return form === undefined
        ? []
        : [
            {
              name: `X${sheet}`,
              form,
              content: `q ${num(scale)} 0 0 ${num(scale)} ${num(x)} ${num(y)} cm /X${sheet} Do Q`,
            },
          ]
    })
    const content = file.addStream(shown.map((own) => own.content).join("\n"))
    const objects = shown.map(({ name, form }) => `/${name} ${ref(form)}`).join("")
    return file.add(
      `<</Type/Page/Parent ${ref(pages)}/MediaBox[0 0 ${num(width)} ${num(height)}]/Contents ${ref(content)}/Resources<</XObject<<${objects}>>>>>>`,
    )
  })
  supplies.finish()
  file.add(`<</Type/Pages/Count ${kids.length}/Kids[${kids.map(ref).join(" ")}]>>`, pages)
  const [first] = sides
  // Turned over as the leaf of a book is: round the upright edge of what is read.
  const edge = first && first.width > first.height ? "DuplexFlipShortEdge" : "DuplexFlipLongEdge"
  // What it is set for is what it is: no program is to fit it anew.
  file.add(
    `<</Type/Catalog/Pages ${ref(pages)}/ViewerPreferences<</PrintScaling/None/Duplex/${onBothSides(plan) ? edge : "Simplex"}>>>>`,
    catalog,
  )
  const title = documentAttrs(layout.doc).properties.title || options.name
  const info = file.add(`<</Title${textString(title)}/Producer(Biblon)>>`)
  return file.finish(catalog, info, "0".repeat(32))
}
