import "../global.css"
import { Slot } from "expo-router"
import { declareFaces } from "../src/ui/fontFaces"

declareFaces()

export default function Root() {
  return <Slot />
}
