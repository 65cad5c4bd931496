import { useEffect } from "react"
import { isUnderWay, useOutside } from "./store"

/** Milliseconds between two looks while something is under way, and else. */
const [often, seldom] = [500, 5000]

/** Keeps what is known of printer and post as it is, as long as somebody looks. */
export function useOutsideNews(): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let wanted = true
    const look = async () => {
      await useOutside.getState().load()
      if (wanted) timer = setTimeout(() => void look(), isUnderWay(useOutside.getState().outside) ? often : seldom)
    }
    void look()
    return () => {
      wanted = false
      clearTimeout(timer)
    }
  }, [])
}
