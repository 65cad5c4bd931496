/** The rules that the document must follow: what agrees, what does not, where, and what puts it right. */
import { useEffect, useRef, useState } from "react"
import { Text, View } from "react-native"
import {
  briefRules,
  changeBrief,
  followBrief,
  rulings,
  setBrief,
  writeBrief,
  type BriefRule,
  type Verdict,
} from "@biblon/core/brief"
import { documentAttrs, limits, type Brief } from "@biblon/core/document"
import { Press } from "../../../../ui/bar"
import { wordLook } from "../../../../ui/button"
import { Choice } from "../../../../ui/choice"
import { TextField } from "../../../../ui/field"
import { fileNamed, saveFile } from "../../../../ui/saving"
import { useTyped } from "../../../../ui/typed"
import { PropertyEntry } from "../../../bars/PressedCard"
import { useDesk, useSession } from "../../../context"
import { trying } from "../../../trying"
import { BriefChoice } from "./BriefChoice"
import { keepBrief } from "./ownBriefs"
import { RuleForm } from "./RuleForm"
import { usualRules } from "./rules"
import { useVerdicts } from "./useVerdicts"

/** One rule: a dot, the rule in words, what is found, and the way to it. */
function Rule({ verdict, brief, changing }: { verdict: Verdict; brief: Brief; changing: boolean }) {
  const session = useSession()
  const { rule, name, says, agrees, found, places, mends } = verdict
  const [seen, setSeen] = useState(0)
  const go = () => {
    const place = places[seen % places.length]
    setSeen(seen + 1)
    if (!place) return
    if (place.to > place.from && place.to - place.from < 2000) session.going.toRange(place.from, place.to)
    else session.going.toLeaf(place.leaf)
  }
  const asked = brief[rule]
  const actions = !agrees || changing
  return (
    <View role="listitem" className="border-b border-line py-1.5">
      <View className="flex-row gap-2">
        <span
          aria-hidden
          className={`mt-[5px] h-2.5 w-2.5 shrink-0 rounded-full ${agrees ? "bg-laurel" : "bg-ochre"}`}
        />
        <View className="min-w-0 flex-1">
          <Text className="font-ui text-[14px] leading-5 text-ink">
            <Text className="font-ui-bold">{name}</Text>
            {`  ${says}`}
          </Text>
          {found && (!agrees || rule === "length") ? (
            <Text
              className={`font-ui text-[13px] leading-5 ${agrees ? "text-ink-soft" : "text-ochre"}`}
            >{`Here: ${found}`}</Text>
          ) : null}
        </View>
      </View>
      {actions ? (
        <View className="flex-row flex-wrap pl-1.5">
          {changing ? (
            <Press
              className={wordLook}
              aria-label={`Drop the rule: ${name}`}
              onClick={() => session.run(changeBrief({ [rule]: undefined }))}
            >
              Drop
            </Press>
          ) : (
            <>
              {mends ? (
                <Press
                  className={wordLook}
                  aria-label={`Put right: ${name}`}
                  {...trying(session, followBrief([rule], `Put right: ${name.toLowerCase()}`))}
                >
                  Put right
                </Press>
              ) : null}
              {places.length > 0 ? (
                <Press className={wordLook} aria-label={`Show where: ${name}`} onClick={go}>
                  {places.length === 1 ? "Show" : `Show ${(seen % places.length) + 1} of ${places.length}`}
                </Press>
              ) : null}
            </>
          )}
        </View>
      ) : null}
      {!changing && !agrees && rule === "titleBlock" ? (
        <View className="gap-2 pb-2 pl-4">
          {brief.titleBlock?.lines.map((line) => (
            <PropertyEntry key={line} property={line} />
          ))}
        </View>
      ) : null}
      {changing && asked !== undefined ? (
        <View className="mt-1 pl-4">
          <RuleForm rule={rule} asked={asked} />
        </View>
      ) : null}
    </View>
  )
}

/** Rules that could be added, and the name. */
function Changing({ brief }: { brief: Brief }) {
  const session = useSession()
  const top = useRef<HTMLDivElement>(null)
  // The button that led here stands at the end of the list.
  useEffect(() => {
    // It gives a promise in some browsers, which an effect must not.
    void top.current?.scrollIntoView({ block: "center" })
  }, [])
  const name = useTyped(brief.name ?? "", (typed) => {
    if (typed.trim() !== "") session.run(changeBrief({ name: typed.trim() }))
  })
  const lacking = briefRules.filter((rule) => brief[rule] === undefined)
  return (
    <div ref={top} className="mt-2 flex flex-col gap-2">
      <TextField label="Name of the brief" maxLength={limits.name} {...name} />
      {lacking.length > 0 ? (
        <Choice<BriefRule>
          label="Add a rule"
          value={undefined}
          none="Choose"
          options={lacking.map((rule) => [rule, rulings[rule].name] as const)}
          onChange={(rule) => session.run(changeBrief({ [rule]: usualRules[rule] }))}
        />
      ) : null}
    </div>
  )
}

export function BriefPage() {
  const session = useSession()
  const brief = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).brief : null))
  const looked = useVerdicts()
  const [choosing, setChoosing] = useState(false)
  const [changing, setChanging] = useState(false)
  if (!brief || choosing)
    return (
      <View>
        <Text className="mt-3 font-ui text-[14px] leading-5 text-ink">
          A brief holds the rules that a paper, letter or record must follow. Choose one, and see what agrees while you
          write.
        </Text>
        <BriefChoice onChosen={() => setChoosing(false)} />
        {brief ? (
          <View className="flex-row">
            <Press className={wordLook} onClick={() => setChoosing(false)}>
              Keep the one there is
            </Press>
          </View>
        ) : null}
      </View>
    )
  const found = looked?.found ?? []
  const right = found.filter(({ agrees }) => agrees).length
  const able = found.some(({ agrees, mends }) => !agrees && mends)
  const save = () =>
    saveFile(new Blob([writeBrief(brief)], { type: "application/json" }), `${fileNamed(brief.name, "Brief")}.json`)
  return (
    <View>
      <Text role="heading" aria-level={2} className="mt-3 font-ui-bold text-[15px] text-ink">
        {brief.name ?? "Brief"}
      </Text>
      <Text role="status" className="mt-1 font-ui text-[14px] text-ink">
        {looked
          ? right === found.length
            ? `All ${found.length} rules agree.`
            : `${right} of ${found.length} rules agree.`
          : "Looking through the document…"}
      </Text>
      {able && !changing ? (
        <Press
          className="mt-2 flex h-11 w-full items-center justify-center rounded-button bg-murex px-3 font-ui-bold text-[14px] text-on-murex wide:h-9"
          {...trying(session, followBrief(briefRules, "Follows its brief"))}
        >
          Put all right
        </Press>
      ) : null}
      {changing ? <Changing brief={brief} /> : null}
      <View role="list" aria-label="Rules" className="mt-2">
        {found.map((verdict) => (
          <Rule key={verdict.rule} verdict={verdict} brief={brief} changing={changing} />
        ))}
      </View>
      <View className="mt-3 flex-row flex-wrap">
        <Press className={wordLook} aria-pressed={changing} onClick={() => setChanging(!changing)}>
          {changing ? "Done" : "Change rules"}
        </Press>
        <Press className={wordLook} onClick={() => setChoosing(true)}>
          Another brief
        </Press>
        <Press className={wordLook} onClick={() => keepBrief(brief)}>
          Keep as your own
        </Press>
        <Press className={wordLook} onClick={save}>
          Save as file
        </Press>
        <Press className={wordLook} onClick={() => session.run(setBrief(null))}>
          No brief
        </Press>
      </View>
    </View>
  )
}
