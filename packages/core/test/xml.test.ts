/** What formats of offices stand on: XML, archives, names of typefaces, encodings. */
import fc from "fast-check"
import { zipSync } from "fflate"
import { inflateRawSync } from "node:zlib"
import { ReadingError } from "../src/document/reading"
import { assetName } from "../src/formats/assets"
import { textOf } from "../src/formats/encoding"
import { familyMeant, isOfSigns } from "../src/formats/familyMeant"
import { Leaving } from "../src/formats/leaving"
import { checkPicture, PictureError } from "../src/formats/pictures/file"
import {
  allWithin,
  child,
  childrenNamed,
  parseXml,
  textIn,
  within,
  xmlText,
  type XmlElement,
} from "../src/formats/xml/parsing"
import { escapeXml, xml } from "../src/formats/xml/writing"
import { cleanPath, inflateWith, isZip, pathsIn, unzip, zip } from "../src/formats/zip"
import { png } from "./officeDocuments"

const prefix = (namespace: string) => ({ "urn:a": "a", "urn:b": "b", "urn:none": "" })[namespace]
const parse = (source: string) => parseXml(source, { prefix })
const bytes = (text: string) => new TextEncoder().encode(text)

test("names carry our prefixes, whatever the file calls them, and also where they change on the way", () => {
  const { root } = parse(
    '<x:r xmlns:x="urn:a" x:v="1" v="2"><r xmlns="urn:b"><x:s/></r><x:t xmlns:x="urn:b"/><q/></x:r>',
  )
  expect([root.name, root.attrs["a:v"], root.attrs.v]).toEqual(["a:r", "1", "2"])
  const [inner, changed, bare] = root.children as XmlElement[]
  expect([inner?.name, (inner?.children[0] as XmlElement).name, changed?.name, bare?.name]).toEqual([
    "b:r",
    "a:s",
    "b:t",
    "q",
  ])
  expect(parse('<y:z xmlns:y="urn:unknown"/>').root.name).toBe("?:z")
  expect(parse('<z xmlns="urn:none"/>').root.name).toBe("z")
})

test("names that objects have are names like any other", () => {
  const { root } = parse('<constructor toString="1"><__proto__ hasOwnProperty="2"/></constructor>')
  expect([root.name, root.attrs.toString, root.attrs.constructor]).toEqual(["constructor", "1", undefined])
  expect((root.children[0] as XmlElement).name).toBe("__proto__")
})

test("text keeps its blanks, entities mean one sign each, CDATA is text", () => {
  expect(textIn(parse("<a> x &lt;b&gt; &#233;&amp; <![CDATA[<c>]]> </a>").root)).toBe(" x <b> é& <c> ")
})

test("elements are found as children, at any depth, and all of them", () => {
  const { root } = parse("<r><p><q>1</q></p><q>2</q><p><q>3<q>4</q></q></p></r>")
  expect(textIn(child(root, "q"))).toBe("2")
  expect(childrenNamed(root, "p")).toHaveLength(2)
  expect(textIn(within(root, "q"))).toBe("1")
  expect(allWithin(root, "q").map(textIn)).toEqual(["1", "2", "34"])
  expect([child(undefined, "q"), within(undefined, "q"), textIn(undefined)]).toEqual([undefined, undefined, ""])
})

test("children are handed over one by one where that is asked for, and are kept nowhere", () => {
  const seen: string[] = []
  const { root } = parseXml("<r><body><p>1</p>between<p>2<p>3</p></p></body></r>", {
    prefix,
    each: { of: new Set(["body"]), take: (own, of) => seen.push(`${of}: ${textIn(own)}`) },
  })
  expect(seen).toEqual(["body: 1", "body: 23"])
  expect(textIn(root)).toBe("between")
})

test.each([
  ["cut off", "<a><b>x", "x", true],
  ["crossed", "<a><b>x</a></b>", "x", true],
  ["with an attribute twice", '<a b="1" b="2">x</a>', "x", true],
  ["with an unknown entity", "<a>x&nope;y</a>", "x&nope;y", true],
  ["with more behind the root", "<a>x</a><b>y</b>", "x", true],
  ["whole", "<a>x</a>", "x", false],
])("XML that is %s is read as far as it goes", (_, source, text, damaged) => {
  const read = parse(source)
  expect([textIn(read.root), read.damaged]).toEqual([text, damaged])
})

test("a document type is refused, nothing that is deep or empty is a hang", () => {
  expect(() => parse('<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>')).toThrow("document type")
  expect(() => parse("")).toThrow(ReadingError)
  const deep = parse(`${"<a>".repeat(100_000)}x${"</a>".repeat(100_000)}`)
  expect(deep.damaged).toBe(true)
  const wide = parse(`<a>${"<b/>".repeat(100_000)}</a>`)
  expect(wide.root.children).toHaveLength(100_000)
})

test.each([
  [[0xff, 0xfe, 0x3c, 0, 0x61, 0, 0x2f, 0, 0x3e, 0], "<a/>"],
  [[0xfe, 0xff, 0, 0x3c, 0, 0x61, 0, 0x2f, 0, 0x3e], "<a/>"],
  [
    [...bytes('<?xml version="1.0" encoding="iso-8859-1"?><a>'), 0xe9],
    '<?xml version="1.0" encoding="iso-8859-1"?><a>é',
  ],
  [[...bytes('<?xml version="1.0" encoding="nonsense"?><a/>')], '<?xml version="1.0" encoding="nonsense"?><a/>'],
])("parts are read in the encoding that they are in", (own, text) => {
  expect(xmlText(new Uint8Array(own)).replace(/^\ufeff/, "")).toBe(text)
})

test("what is written is read back, whatever stands in it but what XML cannot hold", () => {
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), (text) => {
      const made = xml("a", { b: text, c: null, d: undefined, e: 0 }, escapeXml(text))
      const { root, damaged } = parse(made)
      expect(damaged).toBe(false)
      const held = text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udfff]/gu, "")
      // Line ends are one sign in XML.
      expect(textIn(root)).toBe(held.replace(/\r\n?/g, "\n"))
      expect(root.attrs.e).toBe("0")
      expect(Object.keys(root.attrs).sort()).toEqual(["b", "e"])
    }),
  )
})

test.each([
  ["/word\\document.xml", "word/document.xml"],
  ["a/./b/../c", "a/c"],
  ["../../etc/passwd", "etc/passwd"],
  ["", ""],
])("the path %s stays inside", (path, clean) => expect(cleanPath(path)).toBe(clean))

test("archives come back as they were put, the same to the byte each time; what they claim beyond bounds is refused", () => {
  const files = new Map([
    ["b.txt", bytes("x".repeat(5000))],
    ["a/c.bin", new Uint8Array([1, 2, 3])],
  ])
  const made = zip(files, (path) => path.endsWith(".bin"))
  expect(isZip(made)).toBe(true)
  expect(unzip(made)).toEqual(files)
  expect(zip(files, (path) => path.endsWith(".bin"))).toEqual(made)
  expect(pathsIn(made)).toEqual(new Set(["b.txt", "a/c.bin"]))
  expect([...unzip(made, (path) => path === "a/c.bin").keys()]).toEqual(["a/c.bin"])
  const many = zipSync(Object.fromEntries(Array.from({ length: 20_001 }, (_, i) => [`${i}`, new Uint8Array(0)])), {
    level: 0,
  })
  expect(() => unzip(many)).toThrow("too many files")
  // The size that the directory names is made that of a bomb.
  const bomb = Uint8Array.from(made)
  for (let i = 0; i < bomb.length - 4; i++)
    if (bomb[i] === 0x50 && bomb[i + 1] === 0x4b && bomb[i + 2] === 1) bomb.set([0xff, 0xff, 0xff, 0x7f], i + 24)
  expect(() => unzip(bomb)).toThrow("unpacks to more")
  expect(() => unzip(made.subarray(0, 40))).toThrow("damaged")
})

test("what the platform unpacks is what is unpacked without it, also of archives that are damaged or not plain", () => {
  const made = zip(
    new Map([
      ["a.txt", bytes("Slack water ".repeat(40))],
      ["é/b.bin", new Uint8Array([1, 2, 3])],
    ]),
  )
  const all = (archive: Uint8Array) => {
    try {
      return [...unzip(archive)].map(([path, file]) => [path, Buffer.from(file).toString("hex")])
    } catch (error) {
      return (error as Error).message
    }
  }
  let quick = 0
  const platform = (own: Uint8Array, size: number) => {
    quick++
    return inflateRawSync(own, { maxOutputLength: size + 1 })
  }
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(made.length - 1), fc.nat(255)), { maxLength: 3 }),
      fc.nat(400),
      (changes, to) => {
        const own = to < 60 ? made.slice(0, made.length - to) : Uint8Array.from(made)
        for (const [at, value] of changes) if (at < own.length) own[at] = value
        inflateWith(() => {
          throw new Error("none")
        })
        const without = all(own)
        inflateWith(platform)
        const found = all(own)
        expect(found).toEqual(without)
      },
    ),
    { numRuns: 400, examples: [[[], 400]] },
  )
  expect(quick).toBeGreaterThan(50)
})

test("changed bytes of an archive are an archive, or refused", () => {
  const made = zip(new Map([["a.txt", bytes("Slack water ".repeat(40))]]))
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(made.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }), (changes) => {
      const own = Uint8Array.from(made)
      for (const [at, value] of changes) own[at] = value
      try {
        for (const file of unzip(own).values()) expect(file.length).toBeLessThan(300 * 1024 * 1024)
      } catch (error) {
        expect(error).toBeInstanceOf(ReadingError)
      }
    }),
  )
})

test.each([
  ["Times New Roman", undefined, "Tinos", true],
  ["ARIAL", undefined, "Arimo", true],
  ["Literata", undefined, "Literata", true],
  ["Helvetica", undefined, "Arimo", true],
  ["Unheard Of", "swiss", "Arimo", false],
  ["Unheard Of", "modern", "Cousine", false],
  ["Unheard Sans", undefined, "Arimo", false],
  ["Unheard Mono", undefined, "Cousine", false],
  ["constructor", "constructor", "Tinos", false],
])("the typeface %s of kind %s is %s", (name, kind, family, known) => {
  expect(familyMeant(name, kind)).toEqual({ family, known })
})

test("faces of signs are told, what is left out is counted, files are named by their bytes", () => {
  expect(["Symbol", "Wingdings 2", "Arial"].map(isOfSigns)).toEqual([true, true, false])
  const leaving = new Leaving()
  leaving.add("shapes")
  leaving.add("shapes", 2)
  leaving.add("comments")
  expect(leaving.list).toEqual([
    { what: "shapes", count: 3, leaves: [] },
    { what: "comments", count: 1, leaves: [] },
  ])
  expect(assetName(new Uint8Array(0))).toBe("e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855")
  expect(textOf(new Uint8Array(0))).toBe("")
})

test("pictures are what their first bytes say; what is none, or is cut off, or claims too much, is refused in words", () => {
  expect(checkPicture(png)).toEqual({ type: "image/png", width: 8, height: 6 })
  const gif = new Uint8Array([...bytes("GIF89a"), 4, 0, 3, 0, ...new Array<number>(30).fill(0)])
  expect(checkPicture(gif)).toEqual({ type: "image/gif", width: 4, height: 3 })
  const jpeg = new Uint8Array([
    0xff,
    0xd8,
    0xff,
    0xe0,
    0,
    4,
    0,
    0,
    0xff,
    0xc0,
    0,
    17,
    8,
    0,
    9,
    0,
    7,
    ...new Array<number>(30).fill(0),
  ])
  expect(checkPicture(jpeg)).toEqual({ type: "image/jpeg", width: 7, height: 9 })
  expect(() => checkPicture(bytes("<svg xmlns='http://www.w3.org/2000/svg'/>"))).toThrow("no picture of a kind")
  expect(() => checkPicture(png.subarray(0, 20))).toThrow(PictureError)
  const huge = Uint8Array.from(png)
  huge.set([0, 1, 0, 0], 16)
  expect(() => checkPicture(huge)).toThrow("too large")
})
