import { Starters } from "../src/shelf/Starters"

export default function StartersRoute() {
  return <Starters />
}
