import { useRef } from "react"
import { Press } from "./bar"

/** A press that asks for a file; the same one may be given twice. */
export function FilePress({
  children,
  label,
  accept,
  className,
  onFile,
}: {
  children: string
  /** What the file is, for screen readers. */
  label: string
  accept: string
  className: string
  onFile: (file: File) => Promise<void>
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Press className={className} onClick={() => input.current?.click()}>
        {children}
      </Press>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        className="hidden"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) void onFile(file)
          event.target.value = ""
        }}
      />
    </>
  )
}
