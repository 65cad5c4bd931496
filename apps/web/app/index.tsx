import { Shelf } from "../src/shelf/Shelf"

export default function ShelfRoute() {
  return <Shelf />
}
