import "../global.css"
// Modules run when they are first used; what this one does has to be done before the first of its components is drawn.
import "@base-ui/utils/store"
import { Slot } from "expo-router"
import { declareFaces } from "../src/ui/fontFaces"

declareFaces()

export default function Root() {
  return <Slot />
}
