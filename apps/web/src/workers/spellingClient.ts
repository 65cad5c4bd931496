import type { DictionaryName } from "@biblon/core/checking"
import { addressOf } from "./addresses"
import type { SpellingReply, SpellingRequest } from "./spelling.worker"

type Asked = SpellingRequest extends infer R ? (R extends SpellingRequest ? Omit<R, "id"> : never) : never

/** The dictionaries, in a worker that starts with the first word that is looked up. */
export class Dictionaries {
  private worker: Worker | null = null
  private readonly asked = new Map<number, (words: string[] | null) => void>()
  private count = 0

  private ask(request: Asked): Promise<string[] | null> {
    this.worker ??= this.start()
    const id = ++this.count
    return new Promise((resolve) => {
      this.asked.set(id, resolve)
      this.worker?.postMessage({ ...request, id })
    })
  }

  private start(): Worker {
    const worker = new Worker(addressOf("spelling.worker.js"), { type: "module" })
    worker.onmessage = ({ data: { id, words } }: MessageEvent<SpellingReply>) => {
      this.asked.get(id)?.(words)
      this.asked.delete(id)
    }
    // What was asked is asked again when it is needed next.
    worker.onerror = () => this.close()
    return worker
  }

  /** Those of the words that are wrong; null where the dictionary is not to be had. */
  wrong(dictionary: DictionaryName, words: readonly string[]): Promise<string[] | null> {
    return this.ask({ type: "check", dictionary, words })
  }

  async suggest(dictionary: DictionaryName, word: string): Promise<string[]> {
    return (await this.ask({ type: "suggest", dictionary, word })) ?? []
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
    for (const resolve of this.asked.values()) resolve(null)
    this.asked.clear()
  }
}
