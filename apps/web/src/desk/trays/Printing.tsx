import { useState } from "react"
import { router } from "expo-router"
import { Text, View } from "react-native"
import { documentAttrs, papers, type PaperName } from "@biblon/core/document"
import {
  mostCopies,
  onBothSides,
  plainPrint,
  sheetsNamed,
  sidesInAll,
  sidesOf,
  type PrintPlan,
  type Side,
} from "@biblon/core/output/printing"
import { keep, readKept } from "../../kept"
import { Act, WordButton } from "../../ui/button"
import { Choice, Fold, Segment, Segments, Switch } from "../../ui/choice"
import { NumberField, TextField } from "../../ui/field"
import { useDesk, useSession } from "../context"

const arrangements = [
  ["one", "1"],
  ["two", "2"],
  ["four", "4"],
  ["booklet", "Booklet"],
] as const
const offered = ["A4", "A3", "A5", "Letter", "Legal"] as const satisfies readonly PaperName[]

/** For as long as it is not known how many there are. */
const mostSheets = 100_000
/** So many sides are drawn before they are printed. */
const drawn = 6

/** A side of the paper as it will come out, with the numbers of its sheets. */
function SideDrawing({
  side,
  from,
  sheet: of,
}: {
  side: Side
  from: string
  sheet: { width: number; height: number }
}) {
  const { width, height, placed } = side
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${from}: ${placed.map(({ sheet }) => sheet + 1).join(", ") || "blank"}`}
      className="h-[92px] border border-line bg-white"
    >
      {placed.map(({ sheet, x, y, scale }, i) => (
        <g key={i} transform={`translate(${x} ${height - y - scale * of.height})`}>
          <rect
            width={scale * of.width}
            height={scale * of.height}
            fill="none"
            stroke="rgb(var(--line))"
            strokeWidth={3}
          />
          <text
            className="font-ui"
            x={(scale * of.width) / 2}
            y={scale * of.height * 0.6}
            textAnchor="middle"
            fontSize={scale * 260}
            fill="#5e564b"
          >
            {sheet + 1}
          </text>
        </g>
      ))}
    </svg>
  )
}

const some = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

function saidOf(sides: number, both: boolean): string {
  const said = some(sides, "side", "sides")
  return both ? `${said} on ${some(Math.ceil(sides / 2), "sheet", "sheets")} of paper.` : `${said}.`
}

/** Which sheets are printed, and how they lie on the paper: what is drawn is what comes out. */
export function Printing({ unfolded }: { unfolded: boolean }) {
  const session = useSession()
  const { sheets, setup, busy } = useDesk((s) => ({
    // In flow view nobody has counted them yet.
    sheets: s.mode === "flow" ? null : s.view.sheets,
    setup: s.editor ? documentAttrs(s.editor.doc).setup : null,
    busy: s.delivering !== null,
  }))
  const part = sheets === null ? null : session.going.sheetsOfPartHere()
  const [plan, setPlan] = useState<PrintPlan>(() => ({
    ...plainPrint,
    ...(readKept("print-plan") as Partial<PrintPlan> | null),
  }))
  const [which, setWhich] = useState(["all", "odd", "even"].includes(plan.sheets) ? plan.sheets : "these")
  const change = (by: Partial<PrintPlan>) => {
    const next = { ...plan, ...by }
    setPlan(next)
    // What was chosen last is offered next time, but which sheets these were is a matter of this document.
    const { arrangement, paper, fits, twoSided, collated } = next
    keep("print-plan", { arrangement, paper, fits, twoSided, collated })
  }
  if (!setup) return null
  const size = { width: setup.width, height: setup.height }
  const sides =
    sheets === null
      ? null
      : sidesOf(
          { ...plan, copies: 1 },
          Array.from({ length: sheets ?? 0 }, () => size),
        )
  const count = sides && sidesInAll(plan, sides.length)
  const wrong = which === "these" && sheetsNamed(plan.sheets, sheets ?? mostSheets) === null
  const paper = offered.find((name) => papers[name].width === plan.paper?.width)
  return (
    <Fold title="How it lies on the paper" unfolded={unfolded}>
      <Segments label="Sheets on one side">
        {arrangements.map(([value, label], i) => (
          <Segment
            key={value}
            first={i === 0}
            label={label}
            on={plan.arrangement === value}
            onPress={() => change({ arrangement: value })}
          />
        ))}
      </Segments>
      <View className="flex-row gap-2">
        <Choice
          label="Sheets"
          value={which}
          options={[
            ["all", "All"],
            ["odd", "With odd numbers"],
            ["even", "With even numbers"],
            ...(part ? ([["part", "Of this part"]] as const) : []),
            ["these", "These"],
          ]}
          onChange={(value) => {
            setWhich(value)
            const these = value === "part" && part ? `${part[0]}-${part[1]}` : `1-${sheets ?? 2}`
            change({ sheets: value === "these" || value === "part" ? these : value })
          }}
        />
        <Choice
          label="Paper"
          value={paper ?? "own"}
          options={[["own", "As the sheets"], ...offered.map((name) => [name, name] as const)]}
          onChange={(name) => change({ paper: name === "own" ? null : { ...papers[name as PaperName] } })}
        />
      </View>
      {paper && plan.arrangement === "one" ? (
        <Switch label="Made to fit this paper" on={plan.fits} onChange={(fits) => change({ fits })} />
      ) : null}
      {plan.arrangement === "booklet" ? null : (
        <Switch label="On both sides of the paper" on={plan.twoSided} onChange={(twoSided) => change({ twoSided })} />
      )}
      {which === "these" ? (
        <TextField
          label="Numbers, such as 1-3, 7"
          value={plan.sheets}
          wrong={wrong ? "These name no sheets. Write numbers and ranges, such as 1-3, 7." : null}
          onChange={(event) => change({ sheets: event.target.value })}
        />
      ) : null}
      <View className="flex-row items-end gap-2">
        <View className="flex-1 gap-1">
          <Text className="font-ui text-[13px] text-ink-soft">Copies</Text>
          <NumberField
            label="Copies"
            value={plan.copies}
            min={1}
            max={mostCopies}
            step={(n, d) => n + d}
            onChange={(copies) => change({ copies: Math.round(copies) })}
          />
        </View>
        <View className="flex-1">
          {plan.copies > 1 ? (
            <Switch label="Each copy whole" on={plan.collated} onChange={(collated) => change({ collated })} />
          ) : null}
        </View>
      </View>
      {sides ? (
        <View className="flex-row flex-wrap gap-1.5">
          {sides.slice(0, drawn).map((side, i) => (
            <SideDrawing key={i} side={side} from={`Side ${i + 1}`} sheet={size} />
          ))}
        </View>
      ) : null}
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        {[
          count === null ? "The sheets are counted when they are printed." : saidOf(count, onBothSides(plan)),
          plan.arrangement === "booklet" ? "Turned over the short edge, and folded in the middle." : "",
        ].join(" ")}
      </Text>
      <View className="flex-row flex-wrap gap-2">
        <WordButton
          label="Print so"
          primary
          disabled={busy || wrong}
          onPress={() => void session.delivery.print(plan)}
        />
        <WordButton
          label="On the printer here"
          disabled={busy || wrong}
          onPress={() => void session.delivery.printHere(plan, count)}
        />
        <WordButton
          label="Save so as PDF"
          disabled={busy || wrong}
          onPress={() => void session.delivery.save("pdf", plan)}
        />
      </View>
      <View className="-ml-3 self-start">
        <Act label="See what was printed here" onPress={() => router.push("/outbox")} />
      </View>
    </Fold>
  )
}
