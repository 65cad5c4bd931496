/** Typefaces and colours that a document names by what they are for. */
import { asName, limits } from "../../../document"
import type { EmbeddedFonts } from "../../embeddedFonts"
import { familyMeant, isOfSigns } from "../../familyMeant"
import { meanings } from "../../meanings"
import { child, childrenNamed, within, type XmlElement } from "../../xml/parsing"
import { colourOf, valueOf } from "./values"

const colourNames = meanings<string>({
  text1: "dk1",
  dark1: "dk1",
  background1: "lt1",
  light1: "lt1",
  text2: "dk2",
  dark2: "dk2",
  background2: "lt2",
  light2: "lt2",
  hyperlink: "hlink",
  followedHyperlink: "folHlink",
})

export class Theme {
  private readonly kindsOfFaces: ReadonlyMap<string, string>
  /** Names of typefaces that are not here, and of ours that stand for them. */
  readonly replaced = new Map<string, string>()

  constructor(
    private readonly theme: XmlElement | undefined,
    fontTable: XmlElement | undefined,
    /** Typefaces that the file brings along. */
    private readonly embedded: EmbeddedFonts,
  ) {
    this.kindsOfFaces = new Map(
      childrenNamed(fontTable, "w:font").map((font) => [
        (font.attrs["w:name"] ?? "").toLowerCase(),
        valueOf(font, "w:family") ?? "",
      ]),
    )
  }

  /** The family of ours that a name means; one that is not known keeps its name where it looks as ours would. */
  family(name: string | undefined): string | undefined {
    const asked = name?.trim()
    if (!asked) return undefined
    if (this.embedded.has(asked)) return asName(asked, limits.family)
    const own = familyMeant(asked, this.kindsOfFaces.get(asked.toLowerCase()))
    // Faces of signs are read as the signs that they show.
    if (!own.known && !isOfSigns(asked)) this.replaced.set(asked, own.family)
    return own.family
  }

  /** A typeface named by what it is for: "minorHAnsi", "majorEastAsia". */
  faceFor(use: string | undefined): string | undefined {
    const found = /^(minor|major)(\w*)$/.exec(use ?? "")
    if (!found) return undefined
    const fonts = within(this.theme, `a:${found[1]}Font`)
    const script = found[2] === "EastAsia" ? "a:ea" : found[2] === "Bidi" ? "a:cs" : "a:latin"
    return child(fonts, script)?.attrs.typeface || undefined
  }

  colour(name: string | undefined): string | undefined {
    if (name === undefined) return undefined
    const own = child(within(this.theme, "a:clrScheme"), `a:${colourNames(name) ?? name}`)
    return colourOf(child(own, "a:srgbClr")?.attrs.val ?? child(own, "a:sysClr")?.attrs.lastClr)
  }
}
