import { View } from "react-native"
import { Cover } from "./Cover"
import { LineRound } from "./LineRound"
import { SheetDrawing } from "./SheetDrawing"
import { useSetup } from "./useSetup"
import { Watermark } from "./Watermark"

/** What stands behind the text, round it, and before it. */
export function BehindPage() {
  const { setup } = useSetup()
  if (!setup) return null
  return (
    <View className="gap-3 pt-4">
      <SheetDrawing setup={setup} />
      <Watermark />
      <LineRound />
      <Cover />
    </View>
  )
}
