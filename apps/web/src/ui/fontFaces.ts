import { faceAddress, shippedFaces, type FaceId } from "@biblon/core/layout/catalogue"

const rule = (id: FaceId) => `@font-face{font-family:"${id}";src:url(${faceAddress(id)});font-display:block}`

function styleElement(): { element: HTMLStyleElement; fresh: boolean } {
  const known = document.getElementById("biblon-faces")
  if (known instanceof HTMLStyleElement) return { element: known, fresh: false }
  const element = document.createElement("style")
  element.id = "biblon-faces"
  document.head.append(element)
  return { element, fresh: true }
}

/** Makes the page know every face that ships; the browser loads a file when a letter of it is painted. */
export function declareFaces(): void {
  const { element, fresh } = styleElement()
  if (fresh)
    element.textContent = shippedFaces()
      .map(({ id }) => rule(id))
      .join("\n")
}

const declared = new Set<FaceId>()

/** The same for a face that people brought in. */
export function declareFace(id: FaceId): void {
  if (declared.has(id)) return
  declared.add(id)
  declareFaces()
  styleElement().element.append(`\n${rule(id)}`)
}

/** All faces that a document brings along. */
export function declareBrought(fonts: Readonly<Record<string, Readonly<Record<string, string>>>>): void {
  for (const family of Object.values(fonts)) for (const asset of Object.values(family)) declareFace(`own-${asset}`)
}
