/** Whether the address ends in ?debug: then boxes are drawn with the numbers of their leaves, and what page and layout say to each other is logged. */
export const debugging = typeof location !== "undefined" && new URLSearchParams(location.search).has("debug")

/** @param message what is sent or received; long parts are told by their length */
export function logged(direction: "→" | "←", message: object): void {
  if (!debugging) return
  const told = Object.entries(message).map(([key, value]: [string, unknown]) =>
    typeof value === "object" && value !== null
      ? `${key}: ${Array.isArray(value) || ArrayBuffer.isView(value) ? `${(value as ArrayLike<unknown>).length} of` : JSON.stringify(value).slice(0, 60)}`
      : `${key}: ${String(value).slice(0, 60)}`,
  )
  console.debug(`layout ${direction} ${told.join(", ")}`)
}
