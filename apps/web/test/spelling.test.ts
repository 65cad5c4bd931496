import { readFileSync } from "node:fs"
import { join } from "node:path"
import type { DictionaryName } from "@biblon/core/checking"
import { Speller } from "../src/workers/speller"

const speller = new Speller((name: DictionaryName) =>
  Promise.resolve({
    affixes: readFileSync(join(__dirname, `../../../node_modules/dictionary-${name}/index.aff`)),
    words: readFileSync(join(__dirname, `../../../node_modules/dictionary-${name}/index.dic`)),
  }),
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
