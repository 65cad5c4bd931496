import { router } from "expo-router"
import "./early/begun"

/** The document that one is on the way to. */
let goal: string | null = null

/** Goes to a document, if there is one: its first sheets are shown, and only then its desk is made, which takes longer. */
export function toDocument(id: string | null, isNew = false): void {
  // A second press means the same.
  if (id === null || id === goal) return
  goal = id
  const go = () => {
    goal = null
    router.navigate(`/d/${id}`)
  }
  if (globalThis.beginDesk) globalThis.beginDesk(id, isNew, go)
  else go()
}

/** Goes to one that was made just now. */
export const toNewDocument = (id: string | null): void => toDocument(id, true)
