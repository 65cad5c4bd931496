import type { Step } from "prosemirror-transform"

const known = new WeakMap<Step, string>()

/** A step in JSON, written once: the layout, the device's record and the server each get it as text, which is handed over without being walked through. */
export function stepText(step: Step): string {
  let text = known.get(step)
  if (text === undefined) known.set(step, (text = JSON.stringify(step.toJSON())))
  return text
}
