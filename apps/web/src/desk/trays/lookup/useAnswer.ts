import { useEffect, useState } from "react"

/** Milliseconds of rest after which what is typed is asked for. */
const rest = 350

export interface Answer<T> {
  /** What was asked for. */
  of: string
  found: T | null
  problem: string | null
}

/** Asks while one types, and bears that nobody answers: what was there stays until something else is known. */
export function useAnswer<T>(asked: string, ask: (asked: string, signal: AbortSignal) => Promise<T>, again: number) {
  const [answer, setAnswer] = useState<Answer<T> | null>(null)
  const [waiting, setWaiting] = useState(false)
  useEffect(() => {
    if (asked === "") {
      setAnswer(null)
      setWaiting(false)
      return
    }
    const stop = new AbortController()
    const act = async () => {
      setWaiting(true)
      try {
        const found = await ask(asked, stop.signal)
        if (!stop.signal.aborted) setAnswer({ of: asked, found, problem: null })
      } catch (error) {
        const problem =
          error instanceof TypeError ? "The server cannot be reached. Writing goes on." : (error as Error).message
        if (!stop.signal.aborted) setAnswer({ of: asked, found: null, problem })
      }
      if (!stop.signal.aborted) setWaiting(false)
    }
    const timer = setTimeout(() => void act(), rest)
    return () => {
      stop.abort()
      clearTimeout(timer)
    }
  }, [asked, ask, again])
  return { answer, waiting }
}
