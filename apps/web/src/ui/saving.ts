/** Milliseconds after which a browser has taken over a file that it was given. */
export const keepUrl = 60_000

/** What something is called as the name of a file. */
export function fileNamed(name: string | null | undefined, otherwise: string): string {
  return (name ?? otherwise).replace(/[\\/:*?"<>|]/g, " ").trim() || otherwise
}

/** Saves a file on this device, under a name. */
export function saveFile(file: Blob, name: string): void {
  const url = URL.createObjectURL(file)
  const link = document.createElement("a")
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), keepUrl)
}
