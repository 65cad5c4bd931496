/** XML as text. */

const escapes: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" }

/** Characters that XML cannot hold, such as those that control devices, go. */
export function escapeXml(text: string): string {
  return text
    .replace(
      /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g,
      "",
    )
    .replace(/[&<>"]/g, (sign) => escapes[sign] as string)
}

export type XmlValues = Readonly<Record<string, string | number | boolean | undefined | null>>

/** An element; values that are undefined or null are left out, and of what is inside, false and null. */
export function xml(name: string, attrs: XmlValues | null, ...inside: (string | false | null | undefined)[]): string {
  let open = `<${name}`
  if (attrs)
    for (const [key, value] of Object.entries(attrs))
      if (value !== undefined && value !== null) open += ` ${key}="${escapeXml(String(value))}"`
  const content = inside.filter(Boolean).join("")
  return content === "" ? `${open}/>` : `${open}>${content}</${name}>`
}

export const xmlHead = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
