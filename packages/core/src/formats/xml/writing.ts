/** XML as text. */

const escapes: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" }

/** Whether there is anything in a text that cannot stand in XML as it is: in most there is nothing. */
const special = /[&<>"\u0000-\u0008\u000b\u000c\u000e-\u001f\ud800-\udfff\ufffe\uffff]/

/** Characters that XML cannot hold, such as those that control devices, go. */
export function escapeXml(text: string): string {
  if (!special.test(text)) return text
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
    for (const key in attrs) {
      const value = attrs[key]
      if (value !== undefined && value !== null) open += ` ${key}="${escapeXml(String(value))}"`
    }
  let content = ""
  for (const own of inside) if (own) content += own
  return content === "" ? `${open}/>` : `${open}>${content}</${name}>`
}

export const xmlHead = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
