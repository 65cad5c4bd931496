import { faceAddress, shippedFaces } from "@biblon/core/layout/catalogue"

/** Makes the page know every face that ships; the browser loads a file when a letter of it is painted. */
export function declareFaces(): void {
  if (document.getElementById("biblon-faces")) return
  const style = document.createElement("style")
  style.id = "biblon-faces"
  style.textContent = shippedFaces()
    .map(({ id }) => `@font-face{font-family:"${id}";src:url(${faceAddress(id)}) format("truetype");font-display:block}`)
    .join("\n")
  document.head.append(style)
}
