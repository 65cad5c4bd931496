import { useState } from "react"
import { Text, View } from "react-native"
import { changes, redoUpTo, takeBack, undoBackTo, whyNot, type Change } from "@biblon/core/editing"
import { WordButton } from "../../ui/button"
import { SectionTitle } from "../../ui/choice"
import { useDesk, useSession } from "../context"
import { Press } from "../../ui/bar"

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit" })
/** The list shows so many; those before them can be reached by undoing. */
const most = 200

function Row({ change, undone, open, onOpen }: { change: Change; undone: boolean; open: boolean; onOpen: () => void }) {
  const session = useSession()
  const editor = useDesk((s) => s.editor)
  const reason = open && !undone && editor ? whyNot(editor, change.id) : null
  return (
    <div
      className="border-b border-line last:border-b-0"
      onMouseEnter={() => session.marking.preview(change.id)}
      onMouseLeave={() => session.marking.preview(null)}
    >
      <Press
        aria-expanded={open}
        onClick={onOpen}
        onFocus={() => session.marking.preview(change.id)}
        onBlur={() => session.marking.preview(null)}
        className={`flex min-w-0 shrink-0 min-h-[44px] w-full items-center gap-2 px-3 py-2 ${open ? "bg-murex-soft" : "hover:bg-murex-soft/50"}`}
      >
        <Text
          numberOfLines={2}
          className={`flex-1 font-ui text-[14px] ${undone ? "italic text-ink-soft" : "text-ink"}`}
        >
          {change.name}
        </Text>
        <Text className="font-ui text-[12px] text-ink-soft">{clock.format(change.time)}</Text>
      </Press>
      {open ? (
        <View className="gap-2 bg-murex-soft px-3 pb-3">
          <View className="flex-row flex-wrap gap-2">
            {undone ? (
              <WordButton narrow label="Do again up to here" onPress={() => session.run(redoUpTo(change.id))} />
            ) : (
              <>
                <WordButton narrow label="Undo back to here" onPress={() => session.run(undoBackTo(change.id))} />
                {reason === null ? (
                  <WordButton narrow label="Take back this alone" onPress={() => session.run(takeBack(change.id))} />
                ) : null}
              </>
            )}
          </View>
          {reason ? (
            <Text className="font-ui text-[13px] text-ink-soft">It cannot be taken back alone. {reason}</Text>
          ) : null}
        </View>
      ) : null}
    </div>
  )
}

/** What was done, newest first, what can be done again above it. */
export function ChangesTray() {
  const session = useSession()
  const editor = useDesk((s) => s.editor)
  const [open, setOpen] = useState<number | null>(null)
  if (!editor) return null
  const { done, undone } = changes(editor)
  const toggle = (id: number) => () => {
    setOpen(open === id ? null : id)
    session.marking.preview(open === id ? null : id)
  }
  const list = (title: string, items: readonly Change[], undoneItems: boolean) =>
    items.length > 0 ? (
      <>
        <SectionTitle>{title}</SectionTitle>
        <View className="overflow-hidden rounded-button border border-line bg-raised">
          {items.slice(0, most).map((change) => (
            <Row
              key={change.id}
              change={change}
              undone={undoneItems}
              open={open === change.id}
              onOpen={toggle(change.id)}
            />
          ))}
        </View>
      </>
    ) : null
  return (
    <View>
      {list("Undone, can be done again", [...undone].reverse(), true)}
      {list("Done, newest first", done, false)}
      {done.length === 0 && undone.length === 0 ? (
        <Text className="mt-4 font-ui text-[14px] leading-5 text-ink-soft">
          What you do from now on is listed here, and each change can be taken back by itself.
        </Text>
      ) : null}
    </View>
  )
}
