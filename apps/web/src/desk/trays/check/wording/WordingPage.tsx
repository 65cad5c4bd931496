/** What there is to say of the wording, by kind with counts; each kind can be looked for or not. */
import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { useStore } from "zustand"
import { remarkNamed, wordingKindNames, wordingKinds, type WordingKind } from "@biblon/core/checking"
import { documentAttrs } from "@biblon/core/document"
import { leaveRemark } from "@biblon/core/editing"
import { Press } from "../../../../ui/bar"
import { Act } from "../../../../ui/button"
import { Fold, Switch } from "../../../../ui/choice"
import { useDesk, useSession } from "../../../context"
import type { PlacedRemark } from "../../../wording"
import { FoundKind } from "../FoundKind"
import { InContext } from "../InContext"
import { WordList } from "../WordList"
import { RemarkOptions } from "./RemarkOptions"

/** So many places of one kind are listed. */
const mostShown = 20

function Place({ remark }: { remark: PlacedRemark }) {
  const session = useSession()
  return (
    <View className="mt-2 border-t border-line pt-1">
      <Press
        onClick={() => session.going.toRange(remark.start, remark.end)}
        className="flex min-h-[44px] w-full min-w-0 items-center rounded-button px-0 text-left hover:bg-murex-soft/50 wide:min-h-[32px]"
      >
        <InContext at={remark} look="text-laurel" />
      </Press>
      <RemarkOptions remark={remark} onDone={() => session.focus()} />
    </View>
  )
}

/** What was left in this document, to be said again. */
function Left() {
  const session = useSession()
  const left = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).checks.left : null))
  const names = Object.keys(left ?? {})
  if (names.length === 0) return null
  return (
    <Fold title="What was left">
      <WordList
        title="Left in this document"
        words={names}
        forget="Say again"
        shown={(name) => {
          const { kind, words } = remarkNamed(name)
          return kind ? `${wordingKinds[kind].name}: ${words}` : words
        }}
        onForget={(name) => void session.run(leaveRemark(name, false))}
      />
    </Fold>
  )
}

function Kinds() {
  const { wording } = useSession()
  const on = useStore(wording.store, (s) => s.on)
  return (
    <Fold title="What is looked for">
      {wordingKindNames.map((kind) => (
        <Switch
          key={kind}
          label={wordingKinds[kind].name}
          on={on[kind]}
          onChange={(next) => wording.turn(kind, next)}
        />
      ))}
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        Long sentences are looked for in every language, all else in English.
      </Text>
    </Fold>
  )
}

export function WordingPage() {
  const { wording } = useSession()
  // Shown anew as more has been looked through, and as kinds come and go.
  const { looked, failed } = useStore(wording.store)
  const doc = useDesk((s) => s.editor?.doc)
  useEffect(() => {
    wording.watch(true)
    return () => wording.watch(false)
  }, [wording])
  // A kind stays unfolded though its last remark goes while it is looked through.
  const [unfolded, setUnfolded] = useState<readonly WordingKind[]>([])
  const turn = (kind: WordingKind) =>
    setUnfolded(unfolded.includes(kind) ? unfolded.filter((own) => own !== kind) : [...unfolded, kind])
  const remarks = doc ? wording.remarks(doc) : []
  const found = wordingKindNames.flatMap((kind) => {
    const own = remarks.filter((remark) => remark.kind === kind)
    return own.length === 0 ? [] : [{ kind, own }]
  })
  return (
    <View>
      <Text role="status" className="mt-3 font-ui text-[14px] text-ink">
        {failed
          ? "English could not be looked through: the server cannot be reached."
          : looked < 1
            ? `Looking through the text… ${Math.floor(looked * 100)} %`
            : remarks.length === 0
              ? "There is nothing to say of the wording."
              : `${remarks.length} ${remarks.length === 1 ? "remark" : "remarks"} of ${found.length} ${found.length === 1 ? "kind" : "kinds"}.`}
      </Text>
      {failed ? <Act label="Try again" onPress={() => wording.retry()} /> : null}
      <View role="list" aria-label="Remarks on the wording" className="mt-2">
        {found.map(({ kind, own }) => (
          <FoundKind
            key={kind}
            name={wordingKinds[kind].name}
            why={wordingKinds[kind].why}
            count={own.length}
            open={unfolded.includes(kind)}
            onTurn={() => turn(kind)}
          >
            {own.slice(0, mostShown).map((remark) => (
              <Place key={`${remark.start} ${remark.end} ${remark.says}`} remark={remark} />
            ))}
            {own.length > mostShown ? (
              <Text className="font-ui text-[13px] text-ink-soft">{`and ${own.length - mostShown} more`}</Text>
            ) : null}
          </FoundKind>
        ))}
      </View>
      <Left />
      <Kinds />
    </View>
  )
}
