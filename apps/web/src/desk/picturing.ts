/** Pictures from files, the camera, the clipboard and our own drawings; and what needs their pixels. */
import { accentOf, documentAttrs, pictureAttrs, pictureFormat, type PictureFormat } from "@biblon/core/document"
import {
  behindPicture,
  insertPicture,
  pictureHere,
  replacePicture,
  type Command,
  type PictureSource,
} from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import { api } from "../api"
import { addFile, keptFile } from "../live/files"
import { makePicture } from "../workers/pictureClient"
import type { DeskStore } from "./store"

export interface PicturingTarget {
  editor(): EditorState | null
  run(command: Command): boolean
  focus(): void
  /** Keys typed meanwhile wait. */
  hold<T>(work: Promise<T>): Promise<T>
}

/** Width in which drawings are made to pixels, where they say none that is larger. */
const drawingWidth = 1200

/** A drawing in SVG as pixels. As an image it runs no script and fetches nothing. */
async function pixelsOf(svg: Blob): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }))
  try {
    const image = new Image()
    image.src = url
    try {
      await image.decode()
    } catch {
      throw new Error("The drawing cannot be read: its file is damaged.")
    }
    const [wide, high] = [image.naturalWidth || 300, image.naturalHeight || 300]
    const scale = Math.min(4, Math.max(1, drawingWidth / Math.max(wide, high)))
    const canvas = document.createElement("canvas")
    canvas.width = Math.min(4000, Math.max(1, Math.round(wide * scale)))
    canvas.height = Math.min(4000, Math.max(1, Math.round(high * scale)))
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height)
    const made = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/png"))
    if (!made) throw new Error("The drawing has no size that can be shown.")
    return made
  } finally {
    URL.revokeObjectURL(url)
  }
}

const isDrawing = (file: Blob & { name?: string }) => file.type === "image/svg+xml" || /\.svg$/i.test(file.name ?? "")

/** Whether a file may be a picture. */
export const isPictureFile = (file: File): boolean => file.type.startsWith("image/") || isDrawing(file)

export class Picturing {
  constructor(
    private readonly store: DeskStore,
    private readonly target: PicturingTarget,
  ) {}

  private async source(file: Blob & { name?: string }): Promise<PictureSource> {
    const upright = isDrawing(file) ? await pixelsOf(file) : file
    const made = await makePicture({ type: "take", file: upright })
    const [shown, original] = await Promise.all([
      addFile(made.file),
      made.original || isDrawing(file) ? null : addFile(upright),
    ])
    return { asset: shown, source: original, pixels: [made.width, made.height] }
  }

  private async telling<T>(what: string, work: () => Promise<T>): Promise<T | null> {
    this.store.setState({ picturing: what })
    try {
      return await work()
    } catch (error) {
      const why = error instanceof TypeError ? "The server cannot be reached." : (error as Error).message
      this.store.setState({ trouble: `The picture was not put in. ${why} The text is as it was.` })
      return null
    } finally {
      this.store.setState({ picturing: null })
    }
  }

  /** Puts pictures in at the caret, one after the other. */
  async add(files: readonly (Blob & { name?: string })[], format: Partial<PictureFormat> = {}): Promise<void> {
    for (const [i, file] of files.entries()) {
      const what = files.length > 1 ? `Picture ${i + 1} of ${files.length}` : "Picture"
      const source = await this.target.hold(this.telling(what, () => this.source(file)))
      if (!source) return
      if (i > 0) this.behindPicture()
      this.target.run(insertPicture(source, format))
    }
    this.target.focus()
  }

  /** Takes a picture in without putting it into the text; null where that failed, which was said. */
  upload(file: File): Promise<PictureSource | null> {
    return this.telling("Picture", () => this.source(file))
  }

  /** The next picture stands behind the one that was put in before it. */
  private behindPicture(): void {
    const editor = this.target.editor()
    const here = editor && pictureHere(editor)
    if (here) this.target.run(behindPicture(here.pos))
  }

  /** Another file in place of the one that the selected picture shows. */
  async replace(file: File): Promise<void> {
    const here = this.here()
    if (!here) return
    const source = await this.telling("Picture", () => this.source(file))
    if (source && this.same(here.pos))
      this.target.run(
        replacePicture(here.pos, source, {
          height: null,
          crop: { top: 0, right: 0, bottom: 0, left: 0 },
          colours: { tone: "own", brightness: 0, contrast: 0, cut: null },
        }),
      )
  }

  private queue: Promise<void> = Promise.resolve()

  /** Changes the colours of the selected picture, always from its original, one change after the other. */
  colour(change: Partial<PictureFormat["colours"]>): Promise<void> {
    return (this.queue = this.queue.then(() => this.colourNow(change)))
  }

  private async colourNow(change: Partial<PictureFormat["colours"]>): Promise<void> {
    const here = this.here()
    if (!here) return
    const { asset, source, pixels } = pictureAttrs(here.node)
    const colours = { ...pictureFormat(here.node).colours, ...change }
    const original = source ?? asset
    const plain = colours.tone === "own" && colours.brightness === 0 && colours.contrast === 0 && colours.cut === null
    const made = await this.telling("Colours", async (): Promise<PictureSource> => {
      const file = (await keptFile(original)) ?? (await api.picture(original))
      if (plain) {
        const shown = await makePicture({ type: "take", file })
        // Of a large original what is shown is made anew.
        if (shown.original) return { asset: original, source: null, pixels: [shown.width, shown.height] }
        return { asset: await addFile(shown.file), source: original, pixels: [shown.width, shown.height] }
      }
      const editor = this.target.editor()
      const tint = editor ? accentOf(documentAttrs(editor.doc).styles) : "#7a1f4b"
      const coloured = await makePicture({
        type: "colours",
        file,
        colours,
        tint: tint === "#1e1a16" ? "#7a1f4b" : tint,
      })
      return { asset: await addFile(coloured.file), source: original, pixels: [coloured.width, coloured.height] }
    })
    if (made && this.same(here.pos)) {
      // The size on the sheet stays, whatever the pixels are.
      const { width, height } = pictureFormat(here.node)
      const kept = width === null && height === null ? { width: pixels[0] * 0.75 } : {}
      this.target.run(replacePicture(here.pos, made, { colours, ...kept }))
    }
  }

  private here() {
    const editor = this.target.editor()
    return editor && pictureHere(editor)
  }

  /** Whether the picture at a position is still the one that is selected. */
  private same(pos: number): boolean {
    return this.here()?.pos === pos
  }
}
