import { Text, View } from "react-native"
import { limits, type DropCap } from "@biblon/core/document"
import { Choice, Switch } from "../../../ui/choice"
import { LengthField, NumberField } from "../../../ui/field"
import { useDesk } from "../../context"

const fitting = ["Literata", "Playfair Display", "EB Garamond", "Libre Baskerville", "Great Vibes", "Dancing Script"]

/** A drop cap; undefined where what is shaped differs. */
export function DropCapEditor({
  cap,
  onChange,
}: {
  cap: DropCap | null | undefined
  onChange: (cap: DropCap | null) => void
}) {
  const brought = useDesk(({ editor }) =>
    editor ? Object.keys((editor.doc.attrs.styles as { fonts: object }).fonts).join("\n") : "",
  )
  const named = [...fitting, ...brought.split("\n").filter(Boolean)]
  const own = cap?.family
  const options = [
    ["", "That of the text"] as const,
    ...named.map((name) => [name, name] as const),
    ...(own && !named.includes(own) ? [[own, own] as const] : []),
  ]
  const { lines, distance } = limits.dropCap
  return (
    <>
      <Switch
        label="Drop cap"
        on={Boolean(cap)}
        mixed={cap === undefined}
        onChange={(on) => onChange(on ? { lines: 3, distance: 6, family: null } : null)}
      />
      {cap ? (
        <>
          <View className="flex-row gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">Lines high</Text>
              <NumberField
                label="Lines of the drop cap"
                value={cap.lines}
                min={lines[0]}
                max={lines[1]}
                step={(n, d) => n + d}
                onChange={(n) => onChange({ ...cap, lines: Math.round(n) })}
              />
            </View>
            <LengthField
              label="Distance"
              value={cap.distance}
              min={distance[0]}
              max={distance[1]}
              onChange={(n) => onChange({ ...cap, distance: n })}
            />
          </View>
          <Choice
            label="Typeface of the drop cap"
            value={cap.family ?? ""}
            options={options}
            onChange={(family) => onChange({ ...cap, family: family === "" ? null : family })}
          />
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            A paragraph of a single line has no room beside a large letter: it shows from two lines on.
          </Text>
        </>
      ) : null}
    </>
  )
}
