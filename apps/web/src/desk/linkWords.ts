/** Where a link goes, for people to read. */
export function linkWords(href: string): string {
  if (href.startsWith("#")) return href.slice(1)
  const address = href.replace(/^mailto:/, "").replace(/^https?:\/\//, "")
  try {
    return decodeURI(address)
  } catch {
    return address
  }
}
