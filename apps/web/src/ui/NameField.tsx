import { useState } from "react"

export interface NameFieldProps {
  label: string
  name: string | null
  /** Called with the trimmed name, or null for none, if it was changed. */
  onTake: (name: string | null) => void
  /** Called when typing is over, whether or not anything was changed. */
  onEnd: () => void
  className: string
}

/** A name being typed in place: taken on Enter and on leaving, put back by Escape. */
export function NameField({ label, name, onTake, onEnd, className }: NameFieldProps) {
  const [typed, setTyped] = useState(name ?? "")
  const take = () => {
    if (typed.trim() !== (name ?? "")) onTake(typed.trim() || null)
    onEnd()
  }
  return (
    <input
      autoFocus
      aria-label={label}
      placeholder="Name"
      value={typed}
      maxLength={200}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur()
        if (event.key === "Escape") onEnd()
      }}
      className={`min-w-0 rounded-button border border-murex bg-raised text-ink ${className}`}
    />
  )
}
