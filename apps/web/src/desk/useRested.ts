import { useEffect } from "react"
import { useSession } from "./context"
import type { DeskState } from "./store"

/**
 * Does something when the desk is there, and again after each change of what is picked, once that has rested. What changes
 * meanwhile draws nothing anew.
 * @param act asks whether its outcome is still wanted; both it and `pick` are to be the same with each drawing, as long as they do the same
 */
export function useRested(
  rest: number,
  pick: (state: DeskState) => unknown,
  act: (wanted: () => boolean) => Promise<void>,
): void {
  const { store } = useSession()
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let last: object = {}
    const begin = () => {
      const own = (last = {})
      clearTimeout(timer)
      timer = setTimeout(() => void act(() => own === last), rest)
    }
    begin()
    const stop = store.subscribe((now, before) => {
      if (pick(now) !== pick(before)) begin()
    })
    return () => {
      stop()
      clearTimeout(timer)
      last = {}
    }
  }, [store, rest, pick, act])
}
