/** What goes out by the clipboard, and what comes in by it. */
import { documentAttrs, letters, p, paragraph } from "../src/document"
import { broughtBy, selectAll, selectedSlice, selectedText } from "../src/editing"
import { readClips } from "../src/formats/clipReading"
import { clips, ownMedia } from "../src/formats/clips"
import { after, stateOf } from "./telling"

const state = after(
  stateOf([paragraph("heading1", ["Tides"]), p("The chain ", letters("lies", { bold: true, size: 31 }), " there.")]),
  selectAll,
)
const slice = selectedSlice(state)
const copied = {
  slice,
  styles: documentAttrs(state.doc).styles,
  brought: broughtBy(slice, state.doc),
  text: selectedText(state),
}
const written = new Map(clips.map(({ media, write }) => [media, write(copied)]))
const words = (transferred: ReadonlyMap<string, string>) => {
  const { slice: read } = readClips(transferred)
  return read.content.textBetween(0, read.content.size, "|")
}

test("what is copied comes back as it was, with the styles that it needs", () => {
  const read = readClips(written)
  expect(read.slice.eq(slice)).toBe(true)
  expect(Object.keys(read.brought!.styles)).toContain("heading1")
})

test("what cannot be understood gives way to what stands beside it", () => {
  const broken = (own: string) => new Map([...written, [ownMedia, own]])
  for (const own of ["{", "null", '{"slice":{"content":[{"type":"doc"}]},"brought":{}}', "[]", '{"slice":null}'])
    expect(words(broken(own))).toBe("Tides|The chain lies there.")
  const large = written.get(ownMedia)!.replace("31", "50000")
  expect(words(broken(large))).toBe("Tides|The chain lies there.")
  expect(readClips(broken(large)).brought).toBeNull()
})

test("plain text alone has nothing to be read, nor has an empty clipboard", () => {
  expect(readClips(new Map([["text/plain", "Tides"]])).slice.size).toBe(0)
  expect(readClips(new Map()).slice.size).toBe(0)
})
