/** Embedded typefaces (OpenDocument 1.3, 3.14): files beside the text, which its declarations of faces name. */
import { EmbeddedFonts, type FaceToEmbed } from "../embeddedFonts"
import type { Leaving } from "../leaving"
import { allWithin, child, childrenNamed, type XmlElement } from "../xml/parsing"
import { xml } from "../xml/writing"
import { cleanPath } from "../zip"
import { familyNamedIn } from "./reading/properties"

/** @param roots those of the parts that declare faces */
export function embeddedFonts(
  roots: readonly (XmlElement | undefined)[],
  file: (path: string) => Uint8Array | undefined,
  leaving: Leaving,
): EmbeddedFonts {
  const fonts = new EmbeddedFonts(leaving)
  const seen = new Set<string>()
  for (const face of roots.flatMap((root) => childrenNamed(child(root, "office:font-face-decls"), "style:font-face"))) {
    const family = familyNamedIn(face.attrs["svg:font-family"] ?? face.attrs["style:name"]) ?? ""
    for (const { attrs } of allWithin(face, "svg:font-face-uri")) {
      const path = cleanPath(attrs["xlink:href"] ?? "")
      const bytes = seen.has(path) ? undefined : file(path)
      seen.add(path)
      if (bytes) fonts.take(family, null, bytes)
    }
  }
  return fonts
}

export const fontType = "application/x-font-ttf"

/** Where the file of a face lies in what is written. */
export const fontPath = ({ asset }: FaceToEmbed) => `Fonts/${asset.slice(0, 16)}.ttf`

/** The declarations of faces that go along; empty where none does. */
export function fontDeclarations(faces: readonly FaceToEmbed[]): string {
  if (faces.length === 0) return ""
  return xml(
    "office:font-face-decls",
    null,
    ...faces.map((face) =>
      xml(
        "style:font-face",
        {
          // Each declaration has a name of its own.
          "style:name": face.variant === "regular" ? face.family : `${face.family} ${face.variant}`,
          "svg:font-family": `'${face.family}'`,
          "svg:font-style": /italic/i.test(face.variant) ? "italic" : "normal",
          "svg:font-weight": /bold/i.test(face.variant) ? "bold" : "normal",
        },
        xml(
          "svg:font-face-src",
          null,
          xml(
            "svg:font-face-uri",
            { "xlink:type": "simple", "xlink:href": fontPath(face) },
            xml("svg:font-face-format", { "svg:string": "truetype" }),
          ),
        ),
      ),
    ),
  )
}
