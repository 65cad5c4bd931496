/** In which language a text plainly is, by its commonest words. */

/** The tag that each is given, and words that are common in it and rare in the others. */
const common: Readonly<Record<string, string>> = {
  "en-GB": "the of and to in is was that it for with as his on be at by had are but from have not they which were",
  fr: "le la les de des et est une dans que qui pour sur avec ce il elle au aux du pas sont plus par nous vous",
  es: "el la los las de que y en un una por con para del se es lo como más pero su al sus este ha",
  de: "der die das und ist nicht ein eine den dem des mit von auf für sich auch es wird an werden im zu dass bei",
  it: "il la le di che è un una per con non del della sono si al dei come più anche nel gli ma ha questo",
  pt: "o a os as de que e do da em um uma para com não por dos das no na se mais ao como foi são",
  nl: "de het een van en in is dat op te voor met die niet zijn aan er ook als door maar bij om uit werd",
  sv: "och att det som en på är av för med den till inte har de ett om var jag men från vid kan så när",
  pl: "i w na z do się nie że to jest o jak po co tak za od przez dla był ale ma przy jego są",
}

const lists = Object.entries(common).map(([language, list]) => ({ language, words: new Set(list.split(" ")) }))

/** Words of a text that are looked at. */
const looked = 400
/** Fewer words say nothing; and so large a part of them has to be common, and so many times as many as in the next language. */
const least = { words: 8, share: 0.25, lead: 1.6 }

/** @returns the tag of the language; null where it is not plain */
export function guessLanguage(text: string): string | null {
  const words =
    text
      .slice(0, 10_000)
      .toLowerCase()
      .match(/\p{L}+/gu)
      ?.slice(0, looked) ?? []
  if (words.length < least.words) return null
  const scored = lists
    .map(({ language, words: own }) => ({ language, count: words.filter((word) => own.has(word)).length }))
    .sort((a, b) => b.count - a.count)
  const [best, next] = scored
  if (!best || !next || best.count < words.length * least.share || best.count < next.count * least.lead) return null
  return best.language
}
