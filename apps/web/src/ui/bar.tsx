import { createContext, use, type ComponentProps, type ReactNode } from "react"
import { Toolbar } from "@base-ui/react/toolbar"

const InBar = createContext(false)

/** A row or column of tools: one stop of Tab, among which the arrow keys go. */
export function Bar({
  label,
  upright = false,
  className,
  style,
  children,
}: {
  label: string
  upright?: boolean
  className?: string
  style?: React.CSSProperties
  children: ReactNode
}) {
  return (
    <Toolbar.Root
      aria-label={label}
      orientation={upright ? "vertical" : "horizontal"}
      className={`flex ${upright ? "flex-col" : ""} ${className ?? ""}`}
      style={style}
    >
      <InBar value={true}>{children}</InBar>
    </Toolbar.Root>
  )
}

/** The button that all buttons are made of; on a bar it is one of the bar's. */
export function Press({ className = "", type = "button", ...props }: ComponentProps<"button">) {
  const inBar = use(InBar)
  const own = { ...props, type, className: `cursor-pointer disabled:cursor-default ${className}` }
  return inBar ? <Toolbar.Button focusableWhenDisabled={false} {...own} /> : <button {...own} />
}
