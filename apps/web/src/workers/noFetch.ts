/** Stands for what would fetch while one waits. */
export default function noFetch(): never {
  throw new Error("Nothing is fetched here")
}
