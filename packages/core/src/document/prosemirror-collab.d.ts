import type { Step, Transform } from "prosemirror-transform"

/** What the package has but does not declare. */
declare module "prosemirror-collab" {
  export interface Rebaseable {
    step: Step
    inverted: Step
    origin: Transform
  }
  export function rebaseSteps(steps: readonly Rebaseable[], over: readonly Step[], transform: Transform): Rebaseable[]
}
