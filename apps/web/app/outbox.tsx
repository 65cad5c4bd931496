import { OutsidePage } from "../src/outside/OutsidePage"

export default function OutboxRoute() {
  return <OutsidePage />
}
