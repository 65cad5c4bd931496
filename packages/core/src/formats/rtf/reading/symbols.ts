/** What single control words stand for, and groups that are no text of the document. */

export const symbols = new Map([
  ["emdash", "—"],
  ["endash", "–"],
  ["emspace", "\u2003"],
  ["enspace", "\u2002"],
  ["qmspace", "\u2005"],
  ["bullet", "•"],
  ["lquote", "‘"],
  ["rquote", "’"],
  ["ldblquote", "“"],
  ["rdblquote", "”"],
  ["zwj", "\u200d"],
  ["zwnj", "\u200c"],
  ["~", "\u00a0"],
  ["-", "\u00ad"],
  ["_", "\u2011"],
  ["{", "{"],
  ["}", "}"],
  ["\\", "\\"],
])
export const elements = new Map([
  ["tab", "<w:tab/>"],
  ["line", "<w:br/>"],
  ["page", '<w:br w:type="page"/>'],
  ["column", '<w:br w:type="column"/>'],
])
export const shownFields = new Map([
  ["chpgn", "PAGE"],
  ["chdate", "DATE"],
  ["chtime", "TIME"],
])
/** Groups that are no text of the document. */
export const passed = new Set([
  "listtext",
  "pntext",
  "xe",
  "tc",
  "rxe",
  "nonshppict",
  "shprslt",
  "revtbl",
  "filetbl",
  "private",
  "generator",
  "atnid",
  "nonesttables",
])
export const toldAs = new Map([["objdata", "objects of other programs"]])
/** Lists of an older kind have no table. */
export const oldLists = { marks: 90_001, numbers: 90_002 }
