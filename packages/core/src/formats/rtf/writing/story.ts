/** Texts of Office Open XML as those of RTF: paragraphs, runs, tables, fields, notes, pictures. */
import type { Parts } from "../../officeopenxml/parts"
import { allWithin, child, childrenNamed, isElement, textIn, within, type XmlElement } from "../../xml/parsing"
import { emusOfTwip, shape } from "./shapes"
import type { WrittenLists, WrittenStyles, Look } from "./styles"
import { text, type Numbered } from "./tables"
import { momentWritten } from "../moments"
import { lettersWords, lineWords, paragraphWords, sides, told } from "./words"

export interface Written {
  parts: Parts
  styles: WrittenStyles
  lists: WrittenLists
  numbered: Numbered
  notes: Readonly<Record<"footnote" | "endnote", ReadonlyMap<string, XmlElement>>>
  comments: ReadonlyMap<string, XmlElement>
}

/** A picture of a size, its bytes as digits. */
function pictureWords(bytes: Uint8Array, size: XmlElement): string {
  const kind = bytes[0] === 0xff ? "jpegblip" : "pngblip"
  const [wide, high] = ["cx", "cy"].map((name) => Math.round(Number(size.attrs[name] ?? 0) / emusOfTwip))
  let digits = ""
  for (const byte of bytes) digits += byte.toString(16).padStart(2, "0")
  return `{\\pict\\${kind}\\picwgoal${wide}\\pichgoal${high} ${digits}}`
}

const field = (instruction: string, shown: string) => `{\\field{\\*\\fldinst{${instruction}}}{\\fldrslt{${shown}}}}`

/** What says of a paragraph that it stands in a cell. */
const inTable = (depth: number) => (depth > 1 ? `\\intbl\\itap${depth}` : depth === 1 ? "\\intbl" : "")

export class StoryWriter {
  /** What fields are at: their instruction, or what they show. */
  private readonly fields: ("instruction" | "shown")[] = []
  private readonly places = new Map<string, string>()

  constructor(
    private readonly written: Written,
    /** Path of the part that is written. */
    private readonly part: string,
  ) {}

  /** @param depth of the cell that they stand in: 1 in a table that stands in no other, 0 in none */
  blocks(root: XmlElement | undefined, depth = 0): string {
    return (root?.children ?? [])
      .filter(isElement)
      .map((own) => this.block(own, depth))
      .join("\n")
  }

  private block(own: XmlElement, depth: number): string {
    if (own.name === "w:p") return this.paragraph(own, depth)
    if (own.name === "w:tbl") return this.table(own, depth + 1)
    if (own.name === "w:sdt") return this.blocks(child(own, "w:sdtContent"), depth)
    return own.name.startsWith("w:bookmark") ? this.inline(own, this.written.styles.look()) : ""
  }

  private paragraph(own: XmlElement, depth: number): string {
    const { styles, lists, numbered } = this.written
    const direct = child(own, "w:pPr")
    const style = child(direct, "w:pStyle")?.attrs["w:val"]
    const look = styles.look(style)
    const item = lists.item(look.paragraph, direct)
    const format = paragraphWords(told(item.paragraph, direct), numbered)
    return (
      `\\pard\\plain\\s${styles.number(style)}${inTable(depth)}${item.words}${format}` +
      `${lettersWords(told(look.letters, child(direct, "w:rPr")), numbered)} ${this.runs(own, look)}\\par`
    )
  }

  private runs(own: XmlElement, look: Look): string {
    return own.children
      .filter(isElement)
      .map((part) => this.inline(part, look))
      .join("")
  }

  private inline(own: XmlElement, look: Look): string {
    switch (own.name) {
      case "w:r":
        return this.run(own, look)
      case "w:hyperlink": {
        const relation = this.written.parts.relations(this.part).get(own.attrs["r:id"] ?? "")
        const place = own.attrs["w:anchor"]
        const target = relation ? `"${relation.target}"` : place === undefined ? null : `\\l "${place}"`
        return target === null ? this.runs(own, look) : field(`HYPERLINK ${text(target)}`, this.runs(own, look))
      }
      case "w:fldSimple":
        return field(text((own.attrs["w:instr"] ?? "").trim()), this.runs(own, look))
      case "w:bookmarkStart": {
        const name = own.attrs["w:name"] ?? ""
        this.places.set(own.attrs["w:id"] ?? "", name)
        return `{\\*\\bkmkstart ${text(name)}}`
      }
      case "w:bookmarkEnd":
        return `{\\*\\bkmkend ${text(this.places.get(own.attrs["w:id"] ?? "") ?? "")}}`
      case "w:commentRangeStart":
      case "w:commentRangeEnd":
        return `{\\*\\atrf${own.name.endsWith("Start") ? "start" : "end"} ${text(own.attrs["w:id"] ?? "")}}`
      case "w:ins":
      case "w:smartTag":
      case "w:sdt":
        return this.runs(own.name === "w:sdt" ? (child(own, "w:sdtContent") ?? own) : own, look)
      default:
        return ""
    }
  }

  private run(own: XmlElement, look: Look): string {
    const { styles, numbered } = this.written
    const direct = child(own, "w:rPr")
    const style = child(direct, "w:rStyle")?.attrs["w:val"]
    const styled = style === undefined ? look.letters : new Map([...look.letters, ...styles.look(style).letters])
    const letters = lettersWords(told(styled, direct), numbered)
    let out = ""
    let words = ""
    const flush = () => {
      if (words !== "") out += this.fields.at(-1) === "instruction" ? words : `{\\plain${letters} ${words}}`
      words = ""
    }
    for (const part of own.children.filter(isElement)) {
      if (part.name === "w:fldChar") {
        flush()
        out += this.fieldSign(part.attrs["w:fldCharType"])
      } else if (part.name === "w:drawing") {
        flush()
        out += this.picture(part)
      } else if (part.name === "w:footnoteReference" || part.name === "w:endnoteReference") {
        flush()
        out += this.note(part.name === "w:footnoteReference" ? "footnote" : "endnote", part.attrs["w:id"])
      } else if (part.name === "w:commentReference") {
        flush()
        out += this.comment(part.attrs["w:id"] ?? "")
      } else words += this.sign(part)
    }
    flush()
    return out
  }

  private sign(part: XmlElement): string {
    switch (part.name) {
      case "w:t":
      case "w:instrText":
        return text(part.children.filter((own) => typeof own === "string").join(""))
      case "w:tab":
        return "\\tab "
      case "w:noBreakHyphen":
        return "\\_"
      case "w:softHyphen":
        return "\\-"
      case "w:footnoteRef":
      case "w:endnoteRef":
        return "\\chftn "
      case "w:cr":
        return "\\line "
      case "w:br":
        return part.attrs["w:type"] === "page" ? "\\page " : part.attrs["w:type"] === "column" ? "\\column " : "\\line "
      default:
        return ""
    }
  }

  private fieldSign(type: string | undefined): string {
    if (type === "begin") {
      this.fields.push("instruction")
      return "{\\field{\\*\\fldinst{"
    }
    const at = this.fields.length - 1
    if (at < 0) return ""
    if (type === "separate" && this.fields[at] === "instruction") {
      this.fields[at] = "shown"
      return "}}{\\fldrslt{"
    }
    if (type === "end") {
      const shown = this.fields.pop() === "shown"
      return shown ? "}}}" : "}}{\\fldrslt{}}}"
    }
    return ""
  }

  private note(kind: "footnote" | "endnote", id: string | undefined): string {
    const note = this.written.notes[kind].get(id ?? "")
    if (!note) return ""
    const inside = new StoryWriter(this.written, `word/${kind}s.xml`).blocks(note)
    return `{\\super\\chftn}{\\footnote${kind === "endnote" ? "\\ftnalt" : ""} ${inside.replace(/\\par$/, "")}}`
  }

  private comment(id: string): string {
    const comment = this.written.comments.get(id)
    if (!comment) return ""
    const { "w:author": author = "", "w:initials": initials = "", "w:date": date = "" } = comment.attrs
    const moment = momentWritten(date)
    const paragraphs = childrenNamed(comment, "w:p").map(
      (own) => `\\pard\\plain ${text(allWithin(own, "w:t").map(textIn).join(""))}`,
    )
    return (
      `{\\*\\atnid ${text(initials)}}{\\*\\atnauthor ${text(author)}}\\chatn{\\*\\annotation{\\*\\atnref ${text(id)}}` +
      `${moment === null ? "" : `{\\*\\atndate ${moment}}`}${paragraphs.join("\\par ")}}`
    )
  }

  private picture(drawing: XmlElement): string {
    const relation = this.written.parts.relations(this.part).get(within(drawing, "a:blip")?.attrs["r:embed"] ?? "")
    const bytes = relation && this.written.parts.bytes(relation.target)
    const size = within(drawing, "wp:extent")
    const picture = bytes && size ? pictureWords(bytes, size) : ""
    const anchor = child(drawing, "wp:anchor")
    if (anchor) return shape(anchor, picture)
    return picture === "" ? "" : `{\\*\\shppict${picture}}`
  }

  /** @param depth 1 for one that stands in no other */
  private table(table: XmlElement, depth: number): string {
    const { numbered } = this.written
    const format = child(table, "w:tblPr")
    const grid = childrenNamed(child(table, "w:tblGrid"), "w:gridCol").map(({ attrs }) => Number(attrs["w:w"] ?? 0))
    const left = Number(child(format, "w:tblInd")?.attrs["w:w"] ?? 0)
    const align =
      { center: "\\trqc", right: "\\trqr", end: "\\trqr" }[child(format, "w:jc")?.attrs["w:val"] ?? ""] ?? ""
    const margins = child(format, "w:tblCellMar")
    const room = (side: string) => Number(child(margins, `w:${side}`)?.attrs["w:w"] ?? (/^[tb]/.test(side) ? 0 : 108))
    const padding = sides.map((side) => `\\trpadd${side.charAt(0)}${room(side)}\\trpaddf${side.charAt(0)}3`).join("")
    const rows = childrenNamed(table, "w:tr").map((row) => {
      const own = child(row, "w:trPr")
      const height = child(own, "w:trHeight")
      const skipped = Number(child(own, "w:gridBefore")?.attrs["w:val"] ?? 0)
      let column = skipped
      const upTo = (n: number) => left + grid.slice(0, n).reduce((sum, width) => sum + width, 0)
      const cells = childrenNamed(row, "w:tc").map((cell) => {
        const told = child(cell, "w:tcPr")
        column += Math.max(1, Number(child(told, "w:gridSpan")?.attrs["w:val"] ?? 1))
        const merge = child(told, "w:vMerge")
        const borders = child(told, "w:tcBorders")
        const ground = child(told, "w:shd")?.attrs["w:fill"]
        const vertical =
          { center: "\\clvertalc", bottom: "\\clvertalb" }[child(told, "w:vAlign")?.attrs["w:val"] ?? ""] ?? ""
        const direction = child(told, "w:textDirection")?.attrs["w:val"]
        const turned = { tbRl: "\\cltxtbrl", btLr: "\\cltxbtlr" }[direction ?? ""] ?? ""
        const words =
          (merge ? (merge.attrs["w:val"] === "restart" ? "\\clvmgf" : "\\clvmrg") : "") +
          vertical +
          turned +
          sides.map((side) => lineWords(child(borders, `w:${side}`), `clbrdr${side.charAt(0)}`, numbered)).join("") +
          (ground && /^[0-9a-f]{6}$/i.test(ground) ? `\\clcbpat${numbered.colour(ground)}` : "")
        const content = this.blocks(cell, depth).replace(/\\par$/, "") || `\\pard\\plain${inTable(depth)} `
        return { words: `${words}\\cellx${upTo(column)}`, content: `${content}\\${depth > 1 ? "nest" : ""}cell` }
      })
      const exact = height?.attrs["w:hRule"] === "exact" ? -1 : 1
      const told =
        `\\trowd\\trgaph${room("left")}\\trleft${upTo(skipped)}${align}${padding}` +
        (child(own, "w:tblHeader") ? "\\trhdr" : "") +
        (child(own, "w:cantSplit") ? "\\trkeep" : "") +
        (height ? `\\trrh${exact * Number(height.attrs["w:val"] ?? 0)}` : "") +
        cells.map(({ words }) => words).join("")
      const content = cells.map(({ content }) => content).join("\n")
      // Of a row in a cell it is told at its end, and who knows nothing of such gets a paragraph.
      return depth > 1
        ? `${content}\n{\\*\\nesttableprops${told}\\nestrow}{\\nonesttables\\par}`
        : `${told}\n${content}\\row`
    })
    return rows.join("\n")
  }
}
