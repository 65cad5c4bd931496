import { useEffect, useState, type ChangeEvent } from "react"
import { Text, View } from "react-native"
import type { Range } from "@biblon/core/document"
import type { Command } from "@biblon/core/editing"
import { NumberField } from "../../../ui/field"
import { useSession } from "../../context"

/** A number that is tried on the text while one slides, and taken when one lets go; or typed. */
export function Slide(props: {
  label: string
  value: number | undefined
  min: number
  max: number
  step: number
  set: (value: number) => Command
  typed?: Range
  onStep?: (by: number) => Command
}) {
  const { label, value, min, max, step, set, typed, onStep } = props
  const session = useSession()
  const [sliding, setSliding] = useState<number | null>(null)
  useEffect(() => setSliding(null), [value])
  const take = () => {
    if (sliding !== null && sliding !== value) session.run(set(sliding))
    else session.trial.show(null)
    setSliding(null)
  }
  const shown = sliding ?? value
  return (
    <View className="gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <View className="flex-row items-center gap-3">
        <input
          type="range"
          aria-label={`${label}: slide`}
          min={min}
          max={max}
          step={step}
          value={shown ?? min}
          onChange={(event: ChangeEvent<HTMLInputElement>) => {
            const next = Number(event.target.value)
            setSliding(next)
            session.trial.show(set(next), "once")
          }}
          onPointerUp={take}
          onKeyUp={take}
          onBlur={take}
          className="h-11 min-w-0 flex-1 accent-[#7a1f4b] wide:h-9"
        />
        <View className="w-[150px]">
          <NumberField
            label={label}
            value={shown}
            min={typed?.[0] ?? min}
            max={typed?.[1] ?? max}
            step={(now, direction) => Math.round((now + direction * step) * 100) / 100}
            onChange={(next) => session.run(set(next))}
            {...(onStep ? { onStep: (direction: -1 | 1) => session.run(onStep(direction * step)) } : {})}
          />
        </View>
      </View>
    </View>
  )
}
