/** Equations (ISO/IEC 29500-1, 22.1) in one line of text, as one would type them. */
import { child, childrenNamed, isElement, textIn, type XmlElement } from "../../xml/parsing"

/** So many equations stand inside one another at most. */
const deepest = 60

const property = (element: XmlElement, properties: string, name: string): string | undefined =>
  child(child(element, properties), name)?.attrs["m:val"]

/** Between brackets, where it is more than one sign or number. */
const grouped = (text: string) => (/^(?:.|[\d.,]+|\p{L}+)$/u.test(text) ? text : `(${text})`)

export function equationText(element: XmlElement, depth = 0): string {
  const all = (inside: XmlElement | undefined): string =>
    (inside?.children ?? []).map((own) => (isElement(own) ? equationText(own, depth + 1) : "")).join("")
  const part = (name: string) => all(child(element, name))
  const raised = (sign: string, name: string) => ((text) => (text === "" ? "" : sign + grouped(text)))(part(name))
  if (depth > deepest) return textIn(element)
  switch (element.name) {
    case "m:t":
      return textIn(element)
    case "m:f":
      return `${grouped(part("m:num"))}/${grouped(part("m:den"))}`
    case "m:sSup":
    case "m:sSub":
    case "m:sSubSup":
      return grouped(part("m:e")) + raised("_", "m:sub") + raised("^", "m:sup")
    case "m:sPre":
      return raised("_", "m:sub") + raised("^", "m:sup") + part("m:e")
    case "m:rad":
      return `${part("m:deg")}√${grouped(part("m:e"))}`
    case "m:nary": {
      const sign = property(element, "m:naryPr", "m:chr") ?? "∫"
      return `${sign + raised("_", "m:sub") + raised("^", "m:sup")} ${part("m:e")}`
    }
    case "m:d": {
      const [begin, end] = [
        property(element, "m:dPr", "m:begChr") ?? "(",
        property(element, "m:dPr", "m:endChr") ?? ")",
      ]
      const between = property(element, "m:dPr", "m:sepChr") ?? "|"
      return begin + childrenNamed(element, "m:e").map(all).join(between) + end
    }
    case "m:m":
      return `[${childrenNamed(element, "m:mr")
        .map((row) => childrenNamed(row, "m:e").map(all).join(", "))
        .join("; ")}]`
    case "m:limLow":
      return part("m:e") + raised("_", "m:lim")
    case "m:limUpp":
      return part("m:e") + raised("^", "m:lim")
    default:
      return element.name.endsWith("Pr") ? "" : all(element)
  }
}
