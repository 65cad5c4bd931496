/** What is untidy, by kind with counts: explained, shown in place, put right with a preview. */
import { useState } from "react"
import type { Node } from "prosemirror-model"
import { Text, View } from "react-native"
import { previewOf, untidy, type Finding, type Rule } from "@biblon/core/checking"
import { mendAll } from "@biblon/core/editing"
import { Press } from "../../../ui/bar"
import { wordLook } from "../../../ui/button"
import { useSession } from "../../context"
import { FoundKind } from "./FoundKind"
import { useLooked } from "./useLooked"
import { trying } from "../../trying"

/** So many places of one kind are listed. */
const mostShown = 20

interface Found {
  rule: Rule
  findings: readonly Finding[]
}

/** A place before and after. */
function Reading({ doc, finding }: { doc: Node; finding: Finding }) {
  const { before, after } = previewOf(doc, finding)
  return (
    <span className="flex min-w-0 flex-col py-1 font-ui text-[14px] text-ink">
      <span className={`truncate ${after === null || after === before ? "" : "text-ink-soft"}`}>
        {before.trim() || "(a blank paragraph)"}
      </span>
      {after === null || after === before ? null : <span className="truncate">{`→ ${after.trim()}`}</span>}
    </span>
  )
}

/** The same rule in the document as it is when it is put right, at all its places or the n-th. */
const mending = (rule: Rule, n: number | null) =>
  mendAll([(now) => rule.find(now).filter((_own, i) => n === null || i === n)], `Tidied: ${rule.name.toLowerCase()}`)

function Kind({ doc, rule, findings }: Found & { doc: Node }) {
  const session = useSession()
  const [open, setOpen] = useState(false)
  const able = findings.some(({ mend }) => mend !== null)
  const go = ({ leaf, from, to }: Finding) => {
    // What was found in a document that has changed since may lie elsewhere.
    if (session.now?.doc === doc && to > from && to - from < 2000) session.going.toRange(from, to)
    else session.going.toLeaf(leaf)
  }
  return (
    <FoundKind
      name={rule.name}
      why={rule.why}
      count={findings.length}
      open={open}
      onTurn={() => setOpen(!open)}
      foot={
        able && findings.length > 1 ? (
          <Press className={wordLook} {...trying(session, mending(rule, null))}>
            {findings.length === 2 ? `${rule.act}, in both places` : `${rule.act}, in all ${findings.length} places`}
          </Press>
        ) : null
      }
    >
      {findings.slice(0, mostShown).map((finding, i) => (
        <View key={i} className="flex-row items-center">
          <Press
            onClick={() => go(finding)}
            className="flex min-h-[44px] min-w-0 flex-1 items-center rounded-button px-2 text-left hover:bg-murex-soft/50 wide:min-h-[32px]"
          >
            <Reading doc={doc} finding={finding} />
          </Press>
          {finding.mend ? (
            <Press className={wordLook} {...trying(session, mending(rule, i))}>
              {rule.act}
            </Press>
          ) : null}
        </View>
      ))}
      {findings.length > mostShown ? (
        <Text className="px-2 font-ui text-[13px] text-ink-soft">{`and ${findings.length - mostShown} more`}</Text>
      ) : null}
    </FoundKind>
  )
}

export function TidyPage() {
  const session = useSession()
  const looked = useLooked(untidy)
  if (!looked) return <Text className="mt-3 font-ui text-[14px] text-ink-soft">Looking through the document…</Text>
  const { doc, found } = looked
  const able = found.filter(({ findings }) => findings.some(({ mend }) => mend !== null))
  const all = mendAll(
    able.map(
      ({ rule }) =>
        (now: Node) =>
          rule.find(now),
    ),
    "Tidied the document",
  )
  return (
    <View>
      <Text role="status" className="mt-3 font-ui text-[14px] text-ink">
        {found.length === 0
          ? "The document is tidy."
          : `${found.reduce((sum, { findings }) => sum + findings.length, 0)} places of ${found.length} ${found.length === 1 ? "kind" : "kinds"}. Unfold a kind to see what it becomes.`}
      </Text>
      {able.length > 1 ? (
        <Press
          className="mt-2 flex h-11 w-full items-center justify-center rounded-button bg-murex px-3 font-ui-bold text-[14px] text-on-murex wide:h-9"
          {...trying(session, all)}
        >
          Put all right
        </Press>
      ) : null}
      <View role="list" aria-label="What is untidy" className="mt-2">
        {found.map((own) => (
          <Kind key={own.rule.id} doc={doc} {...own} />
        ))}
      </View>
    </View>
  )
}
