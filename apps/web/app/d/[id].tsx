import { useLocalSearchParams } from "expo-router"
import { Desk } from "../../src/desk/Desk"

export default function DeskRoute() {
  const { id } = useLocalSearchParams<{ id: string }>()
  return <Desk id={id} key={id} />
}
