import { Text, View } from "react-native"
import { limits, type ListLevel } from "@biblon/core/document"
import { defineLevel } from "@biblon/core/editing"
import { Choice, Switch } from "../../../ui/choice"
import { LengthField, NumberField, TextField } from "../../../ui/field"
import { useTyped } from "../../../ui/typed"
import { useSession } from "../../context"

const kinds = [
  ["mark", "Mark"],
  ["number", "Number"],
  ["check", "Box to tick"],
] as const
const numberings = [
  ["decimal", "1, 2, 3"],
  ["zero", "01, 02, 03"],
  ["lowerLetter", "a, b, c"],
  ["upperLetter", "A, B, C"],
  ["lowerRoman", "i, ii, iii"],
  ["upperRoman", "I, II, III"],
] as const
const aligns = [
  ["left", "Left"],
  ["center", "Centre"],
  ["right", "Right"],
] as const
const follows = [
  ["tab", "At the indent"],
  ["space", "A space"],
  ["none", "Nothing"],
] as const

/** One level of the list with the caret. */
export function LevelEditor({ level, depth }: { level: ListLevel; depth: number }) {
  const session = useSession()
  const change = (by: Partial<ListLevel>) => session.run(defineLevel(depth, by))
  const pattern = useTyped(level.format, (format) => {
    if (format.length > limits.mark)
      session.store.setState({
        trouble: `What stands before an item has up to ${limits.mark} characters. The old pattern was kept.`,
      })
    else change({ format })
  })
  return (
    <View className="gap-3">
      <View className="flex-row gap-2">
        <Choice
          label="Kind"
          value={level.kind}
          options={kinds}
          onChange={(kind) =>
            change({ kind, format: kind === "mark" ? "•" : kind === "number" ? `%${depth + 1}.` : "" })
          }
        />
        {level.kind === "number" ? (
          <Choice
            label="Numbers"
            value={level.numbering}
            options={numberings}
            onChange={(numbering) => change({ numbering })}
          />
        ) : null}
      </View>
      {level.kind === "check" ? null : (
        <TextField
          label={level.kind === "mark" ? "Mark" : "Pattern: %1 to %9 stand for the numbers of those levels"}
          named="Pattern of the level"
          {...pattern}
        />
      )}
      <View className="flex-row gap-2">
        <LengthField label="Text at" value={level.indent} min={0} max={600} onChange={(indent) => change({ indent })} />
        <LengthField
          label="Mark before it"
          value={level.hanging}
          min={0}
          max={400}
          onChange={(hanging) => change({ hanging })}
        />
      </View>
      <View className="flex-row gap-2">
        <Choice label="Mark stands" value={level.align} options={aligns} onChange={(align) => change({ align })} />
        <Choice
          label="Between mark and text"
          value={level.follow}
          options={follows}
          onChange={(follow) => change({ follow })}
        />
      </View>
      {level.kind === "number" ? (
        <>
          <View className="flex-row items-end gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">Begins with</Text>
              <NumberField
                label="First number of the level"
                value={level.start}
                min={0}
                max={100000}
                step={(n, d) => n + d}
                onChange={(start) => change({ start: Math.round(start) })}
              />
            </View>
            <Choice
              label="Starts anew"
              value={level.restart === null ? "never" : String(level.restart)}
              options={[
                ["0", "below any level"],
                ...Array.from({ length: depth }, (_, i) => [String(i + 1), `below level ${i + 1}`] as const),
                ["never", "never"],
              ]}
              onChange={(value) => change({ restart: value === "never" ? null : Number(value) })}
            />
          </View>
          <Switch label="Other levels in it as 1, 2, 3" on={level.legal} onChange={(legal) => change({ legal })} />
        </>
      ) : null}
      <Switch
        label="Bold mark"
        on={level.letters.bold === true}
        onChange={(bold) => change({ letters: { ...level.letters, bold } })}
      />
    </View>
  )
}
