/** Milliseconds after which a browser has taken over a file that it was given. */
export const keepUrl = 60_000

/** Saves a file on this device, under a name. */
export function saveFile(file: Blob, name: string): void {
  const url = URL.createObjectURL(file)
  const link = document.createElement("a")
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), keepUrl)
}
