import { useTyped } from "../../ui/typed"

/** What a picture or table says to who cannot see it. @param asks whether it stands out as long as nothing is written */
export function ReaderWords({
  label,
  value,
  asks = false,
  onChange,
}: {
  label: string
  value: string
  asks?: boolean
  onChange: (value: string) => void
}) {
  const typed = useTyped(value, (text) => onChange(text.trim()))
  return (
    <label className="flex flex-col gap-1 font-ui text-[13px] text-ink-soft">
      {label}
      <input
        {...typed}
        placeholder="Not written yet"
        className={`h-11 rounded-button border bg-raised px-3 font-ui text-[15px] text-ink wide:h-9 ${asks && !value ? "border-ochre" : "border-line"}`}
      />
    </label>
  )
}
