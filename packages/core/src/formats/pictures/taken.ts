/** Pictures of a file that is read, as its document names them. */
import type { Node } from "prosemirror-model"
import { Fragment } from "prosemirror-model"
import { assetsOf, enclosuresOf, leavesOf, nodes, pictureAttrs } from "../../document"
import { assetName } from "../assets"
import type { FileRead } from "../format"
import { drawingIn, type Drawing } from "./drawings"
import { checkPicture } from "./file"

export type { Drawing }

export interface PictureTaken {
  asset: string
  pixels: [number, number]
}

/** So many dots of a drawing stand for a point, as long as it is not larger than so many on a side. */
const [dots, most] = [3, 3000]

/** The size in which a drawing is made to pixels. */
export function pixelsOf({ width, height }: Pick<Drawing, "width" | "height">): [number, number] {
  const scale = Math.min(dots, most / Math.max(width, height))
  return [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))]
}

/** The picture in a file; drawings too, which `withDrawings` makes pixels of. @throws PictureError */
export function takePicture(bytes: Uint8Array): PictureTaken {
  const drawing = drawingIn(bytes)
  if (drawing) return { asset: assetName(bytes), pixels: pixelsOf(drawing) }
  const { width, height } = checkPicture(bytes)
  return { asset: assetName(bytes), pixels: [width, height] }
}

/** Makes a PNG file of a drawing, so many pixels wide and high; null where nothing can be made of it. */
export type Draw = (drawing: Drawing, pixels: [number, number]) => Promise<Uint8Array | null>

function replaced(node: Node, picture: (own: Node) => Node | null): Node {
  if (node.type === nodes.picture) return node
  let changed = false
  const children = node.children.flatMap((child) => {
    const own = child.type === nodes.picture ? picture(child) : replaced(child, picture)
    changed ||= own !== child
    return own ?? []
  })
  return changed ? node.copy(Fragment.fromArray(children)) : node
}

/** The leaves in which pictures stand that are named so. */
function leavesWith(doc: Node, gone: ReadonlySet<string>): number[] {
  return leavesOf(doc).nodes.flatMap((leaf, i) =>
    leaf.children.filter((child) => child.type === nodes.picture && gone.has(pictureAttrs(child).asset)).map(() => i),
  )
}

/** A file that was read, with pictures in place of its drawings; of what cannot be drawn it says that it was left out. */
export async function withDrawings(read: FileRead, draw: Draw): Promise<FileRead> {
  const assets = new Map(read.assets)
  const uses = assetsOf(read.doc)
  const enclosed = new Set(enclosuresOf(read.doc).map(({ enclosure }) => enclosure.asset))
  const made = new Map<string, PictureTaken>()
  const gone = new Set<string>()
  for (const [asset, bytes] of read.assets) {
    const drawing = uses.get(asset) === "picture" ? drawingIn(bytes) : null
    if (!drawing) continue
    if (!enclosed.has(asset)) assets.delete(asset)
    const file = await draw(drawing, pixelsOf(drawing))
    if (!file) gone.add(asset)
    else {
      const taken = takePicture(file)
      assets.set(taken.asset, file)
      made.set(asset, taken)
    }
  }
  if (made.size + gone.size === 0) return read
  const leaves = leavesWith(read.doc, gone)
  const doc = replaced(read.doc, (own) => {
    const { asset } = pictureAttrs(own)
    const taken = made.get(asset)
    if (taken) return own.type.create({ ...own.attrs, ...taken }, null, own.marks)
    return gone.has(asset) ? null : own
  })
  const left = leaves.length > 0 ? [{ what: "drawings that cannot be read", count: leaves.length, leaves }] : []
  return { ...read, doc, assets, left: [...read.left, ...left] }
}
