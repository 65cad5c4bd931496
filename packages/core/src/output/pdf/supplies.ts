/** What sheets are drawn with: faces and pictures, each in the file once. */
import type { DrawnPicture, FaceId, FontLibrary, LineRun } from "../../layout"
import type { Drawn } from "./content"
import { PdfFace } from "./fonts"
import { embedImage } from "./images"
import { ref, type PdfFile, type Ref } from "./objects"
import type { Subsetter } from "./subset"

export interface PdfOptions {
  fonts: FontLibrary
  subset: Subsetter
  /** Packs a stream (zlib, RFC 1950): that of the platform, where it has one that answers at once. */
  deflate?: (bytes: Uint8Array) => Uint8Array
  /** The bytes of a picture or an enclosed file by its SHA-256; undefined where they are not to be had. */
  assets?: (asset: string) => Uint8Array | undefined
  /** Whether it is for archives. */
  archive?: boolean
  /** Name of the document, where its own properties give no title. */
  name: string
}

export class Supplies {
  private readonly faces = new Map<FaceId, PdfFace>()
  private readonly names = new Map<string, string | null>()
  private readonly refs = new Map<string, Ref>()

  constructor(
    private readonly file: PdfFile,
    private readonly options: PdfOptions,
  ) {}

  readonly face = ({ run }: LineRun): PdfFace => {
    let face = this.faces.get(run.face)
    if (!face)
      this.faces.set(run.face, (face = new PdfFace(this.file, run.face, `F${this.faces.size}`, this.options.fonts)))
    return face
  }

  /** The name of a picture in all contents; null where it cannot be shown. */
  readonly image = ({ asset }: DrawnPicture): string | null => {
    let name = this.names.get(asset)
    if (name === undefined) {
      const bytes = this.options.assets?.(asset)
      const image = bytes ? embedImage(this.file, bytes) : null
      name = image === null ? null : `I${this.names.size}`
      if (name && image !== null) this.refs.set(name, image)
      this.names.set(asset, name)
    }
    return name
  }

  /** The resources that the content of a sheet names. */
  resources({ faces, images, strengths }: Drawn): string {
    const fonts = [...faces].map((face) => `/${face.name} ${ref(face.ref)}`).join("")
    const pictures =
      images.size > 0
        ? `/XObject<<${[...images].map((name) => `/${name} ${ref(this.refs.get(name) ?? 0)}`).join("")}>>`
        : ""
    const states =
      strengths.size > 0
        ? `/ExtGState<<${[...strengths].map((part) => `/S${part}<</ca ${part / 100}/CA ${part / 100}>>`).join("")}>>`
        : ""
    return `<</Font<<${fonts}>>${pictures}${states}/ProcSet[/PDF/Text/ImageB/ImageC/ImageI]>>`
  }

  /** Writes the faces, once all is drawn. */
  finish(): void {
    for (const face of this.faces.values()) face.write(this.file, this.options.subset)
  }
}
