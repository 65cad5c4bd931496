/** What was printed and sent, and what keeps printer and post from going on. Both are stand-ins that ship. */
import { useEffect } from "react"
import { router } from "expo-router"
import { ScrollView, Text, View } from "react-native"
import type { Job, Outside } from "@biblon/wire"
import { api } from "../api"
import { Press } from "../ui/bar"
import { Act, Chip } from "../ui/button"
import { Glyph, murex } from "../ui/glyph"
import { CaretLeft } from "../ui/icons"
import { useOutside } from "./store"
import { useOutsideNews } from "./useOutsideNews"

const clock = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })

function stateWords({ head, state, reason, progress, made, ended }: Job): string {
  if (state === "done") return `${head.kind === "print" ? "Printed" : "Sent"} ${clock.format(ended ?? made)}`
  if (state === "stopped") return "Stopped"
  if (reason !== null) return `Waits: ${reason.charAt(0).toLowerCase()}${reason.slice(1)}`
  if (state === "waiting") return "Waits"
  return head.kind === "print" ? `Printing, ${Math.round(progress * 100)} %` : "On its way"
}

function JobRow({ job }: { job: Job }) {
  const stop = useOutside((s) => s.stop)
  const { head, state } = job
  const open = state === "waiting" || state === "going"
  return (
    <View role="listitem" className="min-h-[60px] flex-row flex-wrap items-center gap-2 border-b border-line py-2">
      <View className="min-w-[180px] flex-1">
        <Text numberOfLines={1} className="font-ui-bold text-[15px] text-ink">
          {head.kind === "send" ? head.subject || "(no subject)" : head.name}
        </Text>
        {head.kind === "send" ? (
          <>
            <Text numberOfLines={1} className="font-ui text-[13px] text-ink-soft">{`To ${head.to}`}</Text>
            {head.words ? (
              <Text numberOfLines={2} className="font-ui text-[13px] text-ink-soft">
                {head.words}
              </Text>
            ) : null}
          </>
        ) : null}
        <Text
          role="status"
          className={`font-ui text-[13px] ${state === "done" ? "text-laurel" : job.reason && open ? "font-ui-bold text-ink" : "text-ink-soft"}`}
        >
          {stateWords(job)}
        </Text>
      </View>
      <a
        href={api.jobFileUrl(head.id)}
        target="_blank"
        rel="noreferrer"
        className="flex h-11 items-center rounded-button px-3 font-ui-bold text-[14px] text-murex hover:bg-murex-soft/50 wide:h-9"
      >
        {head.kind === "send" ? head.name : "What came out"}
      </a>
      {open ? <Act label="Stop" onPress={() => void stop(head.id)} /> : null}
    </View>
  )
}

const parts = [
  {
    kind: "print",
    title: "Printer",
    note: "A printer that ships with Biblon. It keeps what came out of it.",
    empty: "Nothing was printed here yet. The Deliver tray of a document hands over to it.",
    troubles: [
      ["paper", "Without paper"],
      ["jam", "Jammed"],
    ],
  },
  {
    kind: "send",
    title: "Outbox",
    note: "A post that ships with Biblon. Nothing leaves this machine.",
    empty: "Nothing was sent yet. The Deliver tray of a document sends a copy.",
    troubles: [["line", "The line is down"]],
  },
] as const

function Part({ part, outside }: { part: (typeof parts)[number]; outside: Outside }) {
  const setTrouble = useOutside((s) => s.setTrouble)
  const { kind, title, note, empty, troubles } = part
  const jobs = outside.jobs.filter(({ head }) => head.kind === kind)
  const trouble = outside.troubles[kind]
  return (
    <View className="min-w-0 wide:flex-1">
      <Text role="heading" aria-level={2} className="mt-7 font-display text-[19px] text-ink">
        {title}
      </Text>
      <Text className="mt-1 font-ui text-[14px] text-ink-soft">{note}</Text>
      <View
        className="mb-2 mt-2 flex-row flex-wrap gap-2"
        role="group"
        aria-label={`State of the ${title.toLowerCase()}`}
      >
        <Chip label="Ready" on={trouble === null} onPress={() => void setTrouble(kind, null)} />
        {troubles.map(([own, label]) => (
          <Chip key={own} label={label} on={trouble === own} onPress={() => void setTrouble(kind, own)} />
        ))}
      </View>
      {jobs.length === 0 ? (
        <Text className="font-ui text-[14px] text-ink-soft">{empty}</Text>
      ) : (
        <View role="list" aria-label={title} className="border-t border-line">
          {jobs.map((job) => (
            <JobRow key={job.head.id} job={job} />
          ))}
        </View>
      )}
    </View>
  )
}

export function OutsidePage() {
  const { outside, problem } = useOutside()
  useOutsideNews()
  useEffect(() => {
    document.title = "Printer and outbox · Biblon"
  }, [])
  return (
    <ScrollView
      role="main"
      className="flex-1 bg-desk"
      contentContainerClassName="mx-auto w-full max-w-[1080px] px-[18px] pb-16 pt-6 wide:px-10 wide:pt-10"
    >
      <Press
        role="link"
        onClick={() => (router.canGoBack() ? router.back() : router.navigate("/"))}
        className="-ml-2 flex h-11 items-center gap-1 self-start rounded-button px-2 font-ui text-[15px] text-murex hover:bg-murex-soft/50"
      >
        <Glyph icon={CaretLeft} size={18} colour={murex} />
        Back
      </Press>
      <Text role="heading" aria-level={1} className="mt-1 font-display text-[28px] text-ink">
        Printer and outbox
      </Text>
      {problem ? (
        <Text role="alert" className="mt-4 rounded-tray bg-raised p-3 font-ui text-[14px] text-madder">
          {problem}
        </Text>
      ) : null}
      {outside ? (
        <View className="wide:flex-row wide:gap-12">
          {parts.map((part) => (
            <Part key={part.kind} part={part} outside={outside} />
          ))}
        </View>
      ) : null}
    </ScrollView>
  )
}
