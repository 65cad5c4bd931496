import { useRef } from "react"
import { useTyped } from "./typed"

export interface NameFieldProps {
  label: string
  name: string | null
  /** Called with the trimmed name, or null for none, if it was changed. */
  onTake: (name: string | null) => void
  /** Called when typing is over, whether or not anything was changed. */
  onEnd: () => void
  className: string
}

/** A name being typed in place. */
export function NameField({ label, name, onTake, onEnd, className }: NameFieldProps) {
  const field = useRef<HTMLInputElement>(null)
  const typed = useTyped(name ?? "", (text) => {
    if (text.trim() !== (name ?? "")) onTake(text.trim() || null)
  })
  return (
    <input
      autoFocus
      ref={field}
      aria-label={label}
      placeholder="Name"
      {...typed}
      onBlur={() => {
        typed.onBlur()
        onEnd()
      }}
      onKeyDown={(event) => {
        typed.onKeyDown(event)
        if (event.key === "Enter" || event.key === "Escape") field.current?.blur()
      }}
      className={`min-w-0 rounded-button border border-murex bg-raised text-ink ${className}`}
    />
  )
}
