import { readFileSync } from "node:fs"
import { join } from "node:path"
import type { DictionaryName } from "@biblon/core/checking"
import { loadModule } from "hunspell-asm"
import { Speller } from "../src/workers/speller"

const file = (name: DictionaryName, ending: "aff" | "dic") =>
  readFileSync(join(__dirname, `../../../node_modules/dictionary-${name}/index.${ending}`))
const speller = new Speller((name: DictionaryName) =>
  Promise.resolve({ affixes: file(name, "aff"), words: file(name, "dic") }),
)

test("words are looked up in the dictionary of their language, and what could be meant is named", async () => {
  expect(
    await speller.wrong("en-gb", ["colour", "color", "chian", "well-kept", "ferry's", "Captain", "captian"]),
  ).toEqual(["color", "chian", "captian"])
  expect(await speller.wrong("en", ["colour", "color"])).toEqual(["colour"])
  expect(await speller.wrong("fr", ["chaîne", "chaine", "l'eau"])).toEqual(["chaine"])
  expect(await speller.suggest("en-gb", "chian")).toContain("chain")
  expect(await speller.suggest("en-gb", "qqqqzzzzxxxxx")).toEqual([])
})

test("words in other letters, made of parts, or longer than any word have an answer too", async () => {
  expect(await speller.wrong("ru", ["паром", "пароом"])).toEqual(["пароом"])
  expect(await speller.wrong("fr", ["chai\u0302ne", "être"])).toEqual([])
  expect(await speller.wrong("en-gb", ["ferry".repeat(200), "é".repeat(399), "\ud83d", "", "ferry"])).toEqual([
    "ferry".repeat(200),
    "é".repeat(399),
    "\ud83d",
  ])
  expect(await speller.suggest("ru", "пароом")).toContain("паром")
  expect(await speller.suggest("en-gb", "ferry".repeat(200))).toEqual([])
})

test("what Hunspell says is what its package says", async () => {
  const factory = await loadModule()
  const [affixes, words] = [factory.mountBuffer(file("sv", "aff")), factory.mountBuffer(file("sv", "dic"))]
  const theirs = factory.create(affixes, words)
  const list = ["färja", "farja", "Älvsborg", "hamnkapten", "hamnkaptan", "tidvattnet", "ö", "öö", "12", "å-ä"]
  expect(await speller.wrong("sv", list)).toEqual(list.filter((word) => !theirs.spell(word)))
  for (const word of ["farja", "hamnkaptan"])
    expect(await speller.suggest("sv", word)).toEqual(theirs.suggest(word).slice(0, 6))
})
