/** What editing leaves behind: formatting without effect, links to nowhere, pictures without words, styles that nobody uses. */
import type { Mark, Node } from "prosemirror-model"
import {
  defaultProperties,
  defaultStyles,
  documentAttrs,
  equal,
  fieldAttrs,
  leavesOf,
  letterProperties,
  marks,
  paragraphLook,
  pictureFormat,
  placesOf,
  referenceOf,
  setEntries,
  styleChain,
  type Properties,
  type RunLook,
} from "../../document"
import type { Finding, Rule } from "./rule"

const properties: ReadonlySet<string> = new Set(letterProperties)

/** Marks that say what the letters are like anyway. */
function idleMarks(base: RunLook, own: readonly Mark[]): Mark[] {
  if (own.some(({ type }) => type === marks.letterStyle || type === marks.link)) return []
  return own.filter(
    ({ type, attrs }) => properties.has(type.name) && equal(base[type.name as keyof RunLook], attrs.value),
  )
}

export const idleFormatting: Rule = {
  id: "idleFormatting",
  name: "Formatting without effect",
  why: "It says what the style says already, and stays behind when the style changes.",
  act: "Take it away",
  find(doc) {
    const { styles } = documentAttrs(doc)
    const leaves = leavesOf(doc)
    return leaves.nodes.flatMap((paragraph, leaf): Finding[] => {
      const { letters } = paragraphLook(styles, paragraph)
      const found: { from: number; to: number; own: Mark[] }[] = []
      paragraph.forEach((child, offset) => {
        const own = child.marks.length > 0 ? idleMarks(letters, child.marks) : []
        if (own.length > 0) found.push({ from: offset, to: offset + child.nodeSize, own })
      })
      const first = found[0]
      const last = found.at(-1)
      if (!first || !last) return []
      const start = leaves.start(leaf)
      return [
        {
          leaf,
          from: start + first.from,
          to: start + last.to,
          mend(tr) {
            for (const { from, to, own } of found) for (const mark of own) tr.removeMark(start + from, start + to, mark)
          },
        },
      ]
    })
  },
}

export const deadLinks: Rule = {
  id: "deadLinks",
  name: "Links that lead nowhere",
  why: "The place that they name is no longer in the document.",
  act: "Take the links away",
  find(doc) {
    const places = placesOf(doc)
    const leaves = leavesOf(doc)
    return leaves.nodes.flatMap((paragraph, leaf) => {
      const found: Finding[] = []
      paragraph.forEach((child, offset) => {
        const link = child.marks.find(({ type }) => type === marks.link)
        const href = link?.attrs.value as string | undefined
        if (!link || !href?.startsWith("#") || places.has(href.slice(1))) return
        const from = leaves.start(leaf) + offset
        const to = from + child.nodeSize
        found.push({ leaf, from, to, mend: (tr) => void tr.removeMark(from, to, link) })
      })
      return found
    })
  },
}

/** What stands in the text as one and wants a person's words. */
function atomsThat(doc: Node, wants: (own: Node) => boolean): Finding[] {
  const leaves = leavesOf(doc)
  return leaves.nodes.flatMap((paragraph, leaf) => {
    const found: Finding[] = []
    paragraph.forEach((child, offset) => {
      if (!wants(child)) return
      const from = leaves.start(leaf) + offset
      found.push({ leaf, from, to: from + 1, mend: null })
    })
    return found
  })
}

const isProperty = (name: string): name is keyof Properties => Object.hasOwn(defaultProperties, name)

/** Whether a field has nothing to show: a property that is not written, a place that is gone. */
function isSilent(field: Node, properties: Properties, places: ReadonlyMap<string, number>): boolean {
  const { kind, format } = fieldAttrs(field)
  if (kind === "reference") return !places.has(referenceOf(format).place)
  // Where there is no title, that of the shelf is shown.
  if (kind !== "author" && kind !== "property") return false
  const name = kind === "author" ? kind : format
  return isProperty(name) && properties[name].trim() === ""
}

export const silentFields: Rule = {
  id: "silentFields",
  name: "Fields with nothing to show",
  why: "What they show is not written yet, or the place that they name is gone. Press one to say what it shows.",
  act: "Say what it shows",
  find(doc) {
    const places = placesOf(doc)
    const { properties } = documentAttrs(doc)
    return atomsThat(doc, (own) => own.type.name === "field" && isSilent(own, properties, places))
  },
}

export const silentPictures: Rule = {
  id: "silentPictures",
  name: "Pictures without words",
  why: "Who cannot see a picture hears what it shows, if somebody has said so.",
  act: "Say what it shows",
  find: (doc) => atomsThat(doc, (own) => own.type.name === "picture" && pictureFormat(own).alt.trim() === ""),
}

/** Styles that somebody made and nothing has, nor starts from. */
function unused(doc: Node): string[] {
  const { styles } = documentAttrs(doc)
  const own = Object.keys(styles.styles).filter((key) => !Object.hasOwn(defaultStyles.styles, key))
  if (own.length === 0) return []
  const used = new Set<string>()
  doc.descendants((node) => {
    if (node.isTextblock) used.add(node.attrs.style as string)
    for (const { type, attrs } of node.marks) if (type === marks.letterStyle) used.add(attrs.value as string)
  })
  for (const key of [...used])
    for (const style of styleChain(styles, key))
      for (const [name, known] of Object.entries(styles.styles)) if (known === style) used.add(name)
  for (const { next } of Object.values(styles.styles)) if (next) used.add(next)
  return own.filter((key) => !used.has(key))
}

export const unusedStyles: Rule = {
  id: "unusedStyles",
  name: "Styles that nothing has",
  why: "They make the list of styles longer and help nobody.",
  act: "Take them away",
  find: (doc) =>
    unused(doc).map((key) => ({
      leaf: 0,
      from: 0,
      to: 0,
      mend(tr) {
        const sheet = documentAttrs(tr.doc).styles
        const { [key]: _gone, ...styles } = sheet.styles
        setEntries(tr, null, "styles", { ...sheet, styles })
      },
    })),
}
