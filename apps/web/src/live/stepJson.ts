import type { Step } from "prosemirror-transform"

const known = new WeakMap<Step, Record<string, unknown>>()

/** A step as JSON, made once: the layout, the device's record and the server each get it. */
export function stepJson(step: Step): Record<string, unknown> {
  let json = known.get(step)
  if (!json) known.set(step, (json = step.toJSON() as Record<string, unknown>))
  return json
}
