/** Fields to type in: words, numbers, lengths. */
import type { ComponentProps } from "react"
import { Text, View } from "react-native"
import { Field } from "@base-ui/react/field"
import { IconButton } from "./button"
import { Minus, Plus } from "./icons"
import { useNumberEntry } from "./numberEntry"
import { inUnit, readLength, stepLength, units, useUnit } from "./units"

/** A line of text; its label stands above it, or with `quiet` is for screen readers only. */
export function TextField({
  label,
  quiet,
  named,
  wrong,
  className = "",
  inputClass = "",
  ...input
}: {
  label: string
  quiet?: boolean
  /** What screen readers call it, if not by its label. */
  named?: string
  /** What is wrong with what was typed, in words. */
  wrong?: string | null
  inputClass?: string
} & ComponentProps<"input">) {
  return (
    <Field.Root invalid={Boolean(wrong)} className={`flex min-w-0 flex-col gap-1 ${className}`}>
      {quiet ? null : named ? (
        <span aria-hidden className="font-ui text-[13px] text-ink-soft">
          {label}
        </span>
      ) : (
        <Field.Label className="font-ui text-[13px] text-ink-soft">{label}</Field.Label>
      )}
      <Field.Control
        {...(quiet || named ? { "aria-label": named ?? label } : {})}
        {...input}
        className={`h-11 min-w-0 rounded-button border border-line bg-raised px-3 font-ui text-[15px] text-ink wide:h-9 ${inputClass}`}
      />
      {wrong ? (
        <Field.Error match role="alert" className="font-ui text-[13px] text-madder">
          {wrong}
        </Field.Error>
      ) : null}
    </Field.Root>
  )
}

/** Several lines of text. */
export function TextArea({ label, ...input }: { label: string } & ComponentProps<"textarea">) {
  return (
    <Field.Root className="flex min-w-0 flex-col gap-1">
      <Field.Label className="font-ui text-[13px] text-ink-soft">{label}</Field.Label>
      <Field.Control
        render={
          <textarea
            rows={4}
            {...input}
            className="min-h-[88px] min-w-0 rounded-button border border-line bg-raised px-3 py-2 font-ui text-[15px] text-ink"
          />
        }
      />
    </Field.Root>
  )
}

interface NumberProps {
  label: string
  value: number | undefined
  min: number
  max: number
  step: (value: number, direction: -1 | 1) => number
  onChange: (value: number) => void
  /** How what is typed is understood, if not as a mere number. */
  read?: (text: string) => number | null
  /** Steps what the selection has, each part from its own value. */
  onStep?: (direction: -1 | 1) => void
}

/** A number with one step less and more, and room to type. An empty value means that the selection is mixed. */
export function NumberField(props: NumberProps) {
  const { label, value, min, max, step, onChange, read, onStep } = props
  const entry = useNumberEntry(value, min, max, onChange, read)
  const by = (direction: -1 | 1) => () => {
    if (onStep) return onStep(direction)
    const next = step(value ?? min, direction)
    if (next >= min - 1e-6 && next <= max + 1e-6) onChange(next)
  }
  const button = "h-11 w-11 wide:h-9 wide:w-9"
  return (
    <View
      role="group"
      aria-label={label}
      className="h-11 flex-1 flex-row items-center overflow-hidden rounded-button border border-line bg-raised wide:h-9"
    >
      <IconButton name={`${label}: less`} icon={Minus} onPress={by(-1)} className={button} />
      <input
        aria-label={label}
        placeholder="several"
        inputMode="decimal"
        className="min-w-0 flex-1 self-stretch bg-transparent text-center font-ui text-[15px] text-ink"
        {...entry}
      />
      <IconButton name={`${label}: more`} icon={Plus} onPress={by(1)} className={button} />
    </View>
  )
}

/** A length in points, shown and typed in the person's unit, or in points where the trade counts in them; another unit may be typed behind a number. */
export function LengthField({
  label,
  value,
  min,
  max,
  onChange,
  onStep,
  inPoints,
}: {
  label: string
  value: number | undefined
  min: number
  max: number
  onChange: (points: number) => void
  onStep?: (next: (points: number) => number) => void
  inPoints?: boolean
}) {
  const own = useUnit((s) => s.unit)
  const unit = inPoints ? "pt" : own
  const points = (shown: number) => shown * units[unit]
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{`${label} (${unit})`}</Text>
      <NumberField
        label={label}
        value={value === undefined ? undefined : inUnit(value, unit)}
        min={min / units[unit]}
        max={max / units[unit]}
        step={(shown, direction) => stepLength(points(shown), direction, unit) / units[unit]}
        read={(text) => {
          const read = readLength(text, unit)
          return read === null ? null : read / units[unit]
        }}
        onChange={(shown) => onChange(Math.round(points(shown) * 1000) / 1000)}
        {...(onStep
          ? {
              onStep: (direction: -1 | 1) =>
                onStep((now) =>
                  Math.min(max, Math.max(min, Math.round(stepLength(now, direction, unit) * 1000) / 1000)),
                ),
            }
          : {})}
      />
    </View>
  )
}
