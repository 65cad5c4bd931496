/** Signs of faces that hold signs in the place of letters, as the characters that Unicode has for them. */

/** From 0x20 on; a dot where there is none. */
const symbol = " !∀#∃%&∋()∗+,−./0123456789:;<=>?≅ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ[∴]⊥_‾αβχδεφγηιϕκλμνοπθρστυϖωξψζ{|}∼"
const symbolHigh = "€ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…⏐⎯↵ℵℑℜ℘⊗⊕∅∩∪⊃⊇⊄⊂⊆∈∉∠∇®©™∏√⋅¬∧∨⇔⇐⇑⇒⇓◊〈®©™∑⎛⎜⎝⎡⎢⎣⎧⎨⎩⎪.〉∫⌠⎮⌡⎞⎟⎠⎤⎥⎦⎫⎬⎭"

/** Signs for pointing and marking, by their place. */
const signs: ReadonlyMap<number, string> = new Map(
  (
    [
      [0x21, "✏"],
      [0x22, "✂"],
      [0x28, "☎"],
      [0x29, "✆"],
      [0x2a, "✉"],
      [0x36, "⌛"],
      [0x3a, "🖥"],
      [0x3f, "✍"],
      [0x41, "✌"],
      [0x43, "👍"],
      [0x44, "👎"],
      [0x45, "☜"],
      [0x46, "☞"],
      [0x47, "☝"],
      [0x48, "☟"],
      [0x4a, "☺"],
      [0x4c, "☹"],
      [0x4e, "☠"],
      [0x51, "✈"],
      [0x52, "☼"],
      [0x54, "❄"],
      [0x58, "✠"],
      [0x59, "✡"],
      [0x5a, "☪"],
      [0x5b, "☯"],
      [0x6c, "●"],
      [0x6d, "❍"],
      [0x6e, "■"],
      [0x6f, "□"],
      [0x71, "❑"],
      [0x72, "❒"],
      [0x73, "⬧"],
      [0x74, "⧫"],
      [0x75, "◆"],
      [0x76, "❖"],
      [0x77, "⬥"],
      [0x78, "⌧"],
      [0x7b, "❀"],
      [0x7c, "✿"],
      [0x7d, "❝"],
      [0x7e, "❞"],
      [0x80, "⓪"],
      [0x81, "①"],
      [0x82, "②"],
      [0x83, "③"],
      [0x84, "④"],
      [0x85, "⑤"],
      [0x86, "⑥"],
      [0x87, "⑦"],
      [0x88, "⑧"],
      [0x89, "⑨"],
      [0x8a, "⑩"],
      [0x9e, "·"],
      [0x9f, "•"],
      [0xa0, "▪"],
      [0xa1, "○"],
      [0xa4, "◉"],
      [0xa5, "◎"],
      [0xa7, "▪"],
      [0xa8, "◻"],
      [0xaa, "✦"],
      [0xab, "★"],
      [0xac, "✶"],
      [0xb0, "⌖"],
      [0xb2, "⟡"],
      [0xb5, "✪"],
      [0xb6, "✰"],
      [0xd5, "⌫"],
      [0xd8, "➢"],
      [0xdf, "←"],
      [0xe0, "→"],
      [0xe1, "↑"],
      [0xe2, "↓"],
      [0xe8, "➔"],
      [0xef, "⇦"],
      [0xf0, "⇨"],
      [0xf1, "⇧"],
      [0xf2, "⇩"],
      [0xf3, "⬄"],
      [0xfb, "✗"],
      [0xfc, "✓"],
      [0xfd, "☒"],
      [0xfe, "☑"],
    ] as const
  ).map(([code, sign]) => [code, sign]),
)

/**
 * @param face the name of the face that is asked for
 * @param code of the character, which may lie where faces of signs have theirs (U+F020 to U+F0FF)
 * @returns undefined for a character that means itself
 */
export function symbolOf(face: string | undefined, code: number): string | undefined {
  const own = code >= 0xf000 && code <= 0xf0ff ? code - 0xf000 : code
  const name = face?.toLowerCase() ?? ""
  if (name.startsWith("symbol") || (code >= 0xf000 && name === "")) {
    const found = own >= 0xa0 ? [...symbolHigh][own - 0xa0] : [...symbol][own - 0x20]
    return found === "." && own !== 0x2e ? "•" : (found ?? "•")
  }
  if (/^(wing|web)dings/.test(name)) return signs.get(own) ?? "•"
  if (code < 0xf000 || code > 0xf0ff) return undefined
  return own >= 0x20 && own < 0x7f ? String.fromCharCode(own) : "•"
}
