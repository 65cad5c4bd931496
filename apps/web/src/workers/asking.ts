/** A worker that answers questions, and starts with the first of them. */
import { workerOf } from "./addresses"

/** What its worker posts. */
export interface Answered<A> {
  id: number
  answer: A | null
}

/** What its worker is posted. */
export type Asked<Question> = Question & { id: number }

/** Of a question that nobody waits for. */
export const noId = 0

export class Asking<Question extends object, Answer> {
  private worker: Worker | null = null
  private readonly asked = new Map<number, (answer: Answer | null) => void>()
  private count = 0

  /**
   * @param script the worker's, by its plain name
   * @param begun one that was started before
   */
  constructor(
    private readonly script: string,
    private readonly begun: () => Worker | null = () => null,
  ) {}

  /** @returns null where there is no answer to be had */
  ask(question: Question): Promise<Answer | null> {
    this.worker ??= this.start()
    const id = ++this.count
    return new Promise((resolve) => {
      this.asked.set(id, resolve)
      this.worker?.postMessage({ ...question, id })
    })
  }

  private start(): Worker {
    const worker = this.begun() ?? workerOf(this.script)
    worker.onmessage = ({ data: { id, answer } }: MessageEvent<Answered<Answer>>) => {
      this.asked.get(id)?.(answer)
      this.asked.delete(id)
    }
    // What was asked is asked again when it is needed next.
    worker.onerror = () => this.close()
    return worker
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
    for (const resolve of this.asked.values()) resolve(null)
    this.asked.clear()
  }
}

/** The worker's end: answers each question when it can; null where that fails. */
export function answering<Question extends object, Answer>(answer: (question: Question) => Promise<Answer>): void {
  self.onmessage = ({ data }: MessageEvent<Asked<Question>>) => {
    const post = (own: Answer | null) => self.postMessage({ id: data.id, answer: own } satisfies Answered<Answer>)
    answer(data).then(post, (error: unknown) => {
      console.error(error)
      post(null)
    })
  }
}
