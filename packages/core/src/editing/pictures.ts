/** Pictures put in, chosen and shaped. */
import type { Node } from "prosemirror-model"
import { TextSelection, type EditorState } from "prosemirror-state"
import {
  fitBorder,
  limits,
  nodeAt,
  nodes,
  pictureAttrs,
  pictureFormat,
  setEntries,
  within,
  type PictureAttrs,
  type PictureFormat,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { typingMarks } from "./typingMarks"

/** What a picture is made of. */
export type PictureSource = Pick<PictureAttrs, "asset" | "source" | "pixels">

/** The picture that is selected, by itself; null for none. */
export function pictureHere({
  doc,
  selection,
}: Pick<EditorState, "doc" | "selection">): { node: Node; pos: number } | null {
  const { from, to } = selection
  if (to !== from + 1) return null
  const node = doc.nodeAt(from)
  return node?.type === nodes.picture ? { node, pos: from } : null
}

const pictureAt = (doc: Node, pos: number): Node | null => {
  const node = nodeAt(doc, pos)
  return node?.type === nodes.picture ? node : null
}

/** Puts a picture in place of the selection, selected. */
export function insertPicture(source: PictureSource, format: Partial<PictureFormat> = {}): Command {
  return (state, dispatch) => {
    const { $from, $to } = state.selection
    if (!$from.parent.isTextblock || !$to.parent.isTextblock) return false
    if (!dispatch) return true
    const fitting = fitPicture(format)
    const node = nodes.picture.create(
      { ...source, format: Object.keys(fitting).length > 0 ? fitting : null },
      null,
      typingMarks(state),
    )
    const tr = state.tr.replaceRangeWith($from.pos, $to.pos, node)
    const pos = tr.mapping.map($to.pos) - 1
    if (pictureAt(tr.doc, pos)) tr.setSelection(TextSelection.create(tr.doc, pos, pos + 1))
    dispatch(named(tr, "Picture").scrollIntoView())
    return true
  }
}

/** Brings the caret behind the picture at a position. */
export function behindPicture(pos: number): Command {
  return (state, dispatch) => {
    if (!pictureAt(state.doc, pos)) return false
    dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, pos + 1)))
    return true
  }
}

/** Values of a picture within their bounds. */
export function fitPicture(change: Partial<PictureFormat>): Partial<PictureFormat> {
  const { width, height, crop, turn, opacity, frame, distance, colours, across, down, alt } = change
  const size = (value: number | null) =>
    value !== null && Number.isFinite(value) ? within(value, limits.picture.size) : null
  const fraction = (value: number) => within(value || 0, limits.picture.crop)
  const opposite = (a: number, b: number): [number, number] => {
    const [own, other] = [fraction(a), fraction(b)]
    const most = limits.picture.crop[1]
    return own + other <= most ? [own, other] : [(own / (own + other)) * most, (other / (own + other)) * most]
  }
  const cropped = () => {
    if (!crop) return {}
    const [left, right] = opposite(crop.left, crop.right)
    const [top, bottom] = opposite(crop.top, crop.bottom)
    return { crop: { top, right, bottom, left } }
  }
  return {
    ...change,
    ...(width === undefined ? {} : { width: size(width) }),
    ...(height === undefined ? {} : { height: size(height) }),
    ...cropped(),
    ...(turn === undefined ? {} : { turn: within(turn || 0, limits.picture.turn) }),
    ...(opacity === undefined ? {} : { opacity: within(opacity || 0, limits.strength) }),
    ...(frame ? { frame: fitBorder(frame) } : {}),
    ...(distance === undefined ? {} : { distance: within(distance || 0, limits.picture.distance) }),
    ...(alt === undefined ? {} : { alt: alt.slice(0, limits.alt) }),
    ...(across ? { across: { ...across, at: within(across.at || 0, limits.length) } } : {}),
    ...(down ? { down: { ...down, at: within(down.at || 0, limits.length) } } : {}),
    ...(colours
      ? {
          colours: {
            tone: colours.tone,
            brightness: within(colours.brightness || 0, limits.picture.part),
            contrast: within(colours.contrast || 0, limits.picture.part),
            cut: colours.cut === null ? null : within(colours.cut || 0, [0, 1]),
          },
        }
      : {}),
  }
}

/** Shapes the picture at a position. */
export function setPicture(pos: number, change: Partial<PictureFormat>, name = "Picture shaped"): Command {
  return (state, dispatch) => {
    const node = pictureAt(state.doc, pos)
    if (!node) return false
    if (dispatch) {
      const tr = setEntries(state.tr, pos, "format", { ...pictureAttrs(node).format, ...fitPicture(change) })
      tr.setSelection(TextSelection.create(tr.doc, pos, pos + 1))
      dispatch(named(tr, name))
    }
    return true
  }
}

/** Another file in place of the one that a picture shows; what else is said of it stays. */
export function replacePicture(pos: number, source: PictureSource, change: Partial<PictureFormat> = {}): Command {
  return (state, dispatch) => {
    const node = pictureAt(state.doc, pos)
    if (!node) return false
    if (!dispatch) return true
    const { tr } = state
    for (const [name, value] of Object.entries(source)) tr.setNodeAttribute(pos, name, value)
    setEntries(tr, pos, "format", { ...pictureAttrs(node).format, ...fitPicture(change) })
    tr.setSelection(TextSelection.create(tr.doc, pos, pos + 1))
    dispatch(named(tr, "Picture exchanged"))
    return true
  }
}

/** What is said of the picture that is selected; null for none. */
export function pictureFormatHere(state: Pick<EditorState, "doc" | "selection">): PictureFormat | null {
  const here = pictureHere(state)
  return here && pictureFormat(here.node)
}
