import { useMemo, useRef, useState, type KeyboardEvent } from "react"
import { Text, View } from "react-native"
import { headingsOf, leavesOf, type Heading } from "@biblon/core/document"
import { headingAt, headingNumbers, moveSection, numberHeadings, promoteSection } from "@biblon/core/editing"
import { CaretDown, CaretLeft, CaretRight, Warning } from "../../../ui/icons"
import { CarryHandle, LandingLine } from "../../../ui/Carrying"
import { useCarrying } from "../../../ui/useCarrying"
import { IconButton } from "../../../ui/button"
import { Choice } from "../../../ui/choice"
import { Glyph, inkSoft } from "../../../ui/glyph"
import { useDesk, useSession } from "../../context"
import { Contents, HeadingHere } from "./ContentsTools"
import { useWindow } from "../../../ui/useWindow"
import { Press } from "../../../ui/bar"

interface Shown extends Heading {
  folded: boolean
  hasInside: boolean
  fold: string
}

/** What a heading is folded under: its text and level, and how many of that text and level stand before it. */
function foldsOf(headings: readonly Heading[]): Map<Heading, string> {
  const seen = new Map<string, number>()
  return new Map(
    headings.map((heading) => {
      const name = `${heading.level} ${heading.text}`
      const before = seen.get(name) ?? 0
      seen.set(name, before + 1)
      return [heading, `${before} ${name}`]
    }),
  )
}

/** The headings that are not folded away. */
function shownOf(headings: readonly Heading[], folded: ReadonlySet<string>): Shown[] {
  const shown: Shown[] = []
  const folds = foldsOf(headings)
  let hiddenUntil = -1
  headings.forEach((heading, i) => {
    if (heading.leaf < hiddenUntil) return
    const hasInside = (headings[i + 1]?.leaf ?? Infinity) < heading.end
    const fold = folds.get(heading) as string
    const isFolded = hasInside && folded.has(fold)
    shown.push({ ...heading, folded: isFolded, hasInside, fold })
    if (isFolded) hiddenUntil = heading.end
  })
  return shown
}

/** Heights of a row, in pixels: for fingers, and for a mouse. */
const rowHeights = [44, 32] as const

export function OutlinePage() {
  const session = useSession()
  const { doc, here, numbers } = useDesk(({ editor }) => ({
    doc: editor?.doc ?? null,
    here: editor ? (headingAt(editor.doc, leavesOf(editor.doc).at(editor.selection.head))?.leaf ?? null) : null,
    numbers: editor ? headingNumbers(editor) : null,
  }))
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const list = useRef<HTMLDivElement>(null)
  const headings = useMemo(() => (doc ? headingsOf(doc) : []), [doc])
  const shown = useMemo(() => shownOf(headings, folded), [headings, folded])
  const { items, height } = useWindow(list, shown.length, rowHeights)
  const fold = (heading: Shown) => {
    const next = new Set(folded)
    if (!next.delete(heading.fold)) next.add(heading.fold)
    setFolded(next)
  }

  const { carried, carry } = useCarrying(list, (leaf, before) => {
    const last = shown[items.at(-1)?.index ?? -1]
    session.run(moveSection(leaf, before ?? last?.end ?? leaf))
  })

  /** By key, a section goes before the one above it or behind the one below it at its level. */
  const step = (heading: Heading, direction: -1 | 1) => {
    const peers = headings.filter((other) => other.level === heading.level)
    const peer = peers[peers.indexOf(heading) + direction]
    if (peer) session.run(moveSection(heading.leaf, direction < 0 ? peer.leaf : peer.end))
  }

  const onKey = (heading: Shown) => (event: KeyboardEvent) => {
    if (!event.altKey) return
    const acts: Record<string, () => void> = {
      ArrowUp: () => step(heading, -1),
      ArrowDown: () => step(heading, 1),
      ArrowLeft: () => session.run(promoteSection(heading.leaf, -1)),
      ArrowRight: () => session.run(promoteSection(heading.leaf, 1)),
    }
    const act = acts[event.key]
    if (!act) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }

  return (
    <View>
      <Contents />
      <HeadingHere />
      <View className="mb-3 mt-3 flex-row">
        <Choice
          label="Numbers of headings"
          value={numbers ?? "none"}
          options={[
            ["none", "None"],
            ["chapters", "1, 1.1, 1.1.1"],
            ["appendices", "A, A.1, A.1.1"],
          ]}
          onChange={(definition) => session.run(numberHeadings(definition === "none" ? null : definition))}
        />
      </View>
      {headings.length === 0 ? (
        <Text className="font-ui text-[14px] leading-5 text-ink-soft">
          No headings yet. Give a paragraph a heading style, and it stands here to go to, to fold and to move.
        </Text>
      ) : null}
      <div ref={list} role="tree" aria-label="Outline" className="relative" style={{ height }}>
        {items
          .map(({ index, start }) => ({ heading: shown[index] as Shown, index, start }))
          .map(({ heading, index, start }) => (
            <div
              key={heading.leaf}
              aria-posinset={index + 1}
              aria-setsize={shown.length}
              role="treeitem"
              aria-level={heading.level}
              aria-selected={heading.leaf === here}
              aria-expanded={heading.hasInside ? !heading.folded : undefined}
              data-row={heading.leaf}
              className={`group absolute inset-x-0 flex h-11 items-stretch wide:h-8 rounded-button ${heading.leaf === here ? "bg-murex-soft" : "hover:bg-murex-soft/40"} ${carried?.row === heading.leaf ? "opacity-50" : ""}`}
              style={{ paddingLeft: (heading.level - 1) * 12, top: start }}
            >
              <Press
                aria-label={heading.folded ? `Unfold ${heading.text}` : `Fold ${heading.text}`}
                disabled={!heading.hasInside}
                onClick={() => fold(heading)}
                className="flex w-7 items-center justify-center border-0 bg-transparent p-0 disabled:opacity-0"
              >
                <Glyph icon={heading.folded ? CaretRight : CaretDown} size={14} colour={inkSoft} />
              </Press>
              <Press
                onClick={() => session.going.toLeaf(heading.leaf)}
                onKeyDown={onKey(heading)}
                className={`flex min-h-[44px] min-w-0 flex-1 items-center gap-1.5 border-0 bg-transparent p-0 text-left text-[14px] wide:min-h-[32px] ${heading.leaf === here ? "font-ui-bold text-murex" : "font-ui text-ink"}`}
              >
                {heading.label ? <span className="shrink-0 text-ink-soft">{heading.label}</span> : null}
                <span className="truncate">{heading.text || "(empty heading)"}</span>
                {heading.skips ? (
                  <span
                    title="A level is skipped above this heading"
                    aria-label="A level is skipped above"
                    className="flex shrink-0"
                  >
                    <Glyph icon={Warning} size={15} colour="rgb(var(--ochre))" />
                  </span>
                ) : null}
              </Press>
              {heading.leaf === here ? (
                <>
                  <IconButton
                    name={`Up a level: ${heading.text}`}
                    icon={CaretLeft}
                    onPress={() => session.run(promoteSection(heading.leaf, -1))}
                    className="w-9 rounded-button wide:w-7"
                  />
                  <IconButton
                    name={`Down a level: ${heading.text}`}
                    icon={CaretRight}
                    onPress={() => session.run(promoteSection(heading.leaf, 1))}
                    className="w-9 rounded-button wide:w-7"
                  />
                </>
              ) : null}
              <CarryHandle label={`Move the section ${heading.text}`} onPointerDown={carry(heading.leaf)} />
            </div>
          ))}
        <LandingLine carried={carried} />
      </div>
      {headings.length > 0 ? (
        <Text className="mt-3 font-ui text-[13px] leading-5 text-ink-soft">
          Drag the dots to move a section with all in it. With Alt, the arrow keys move it and change its level.
        </Text>
      ) : null}
    </View>
  )
}
