import { useTyped } from "../../ui/typed"
import { TextField } from "../../ui/field"

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
    <TextField
      label={label}
      {...typed}
      placeholder="Not written yet"
      inputClass={asks && !value ? "border-ochre" : ""}
    />
  )
}
