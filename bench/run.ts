/** npm run bench [-- --json]: where we stand against the budgets of docs/architecture.md. */
import { launch } from "./browser"
import { measureDesk } from "./desk"
import { measureEngine } from "./engine"
import { measureEverything } from "./everything"
import { measureFormats } from "./formats"
import { measureGrowth } from "./growth"
import { measureLinear } from "./linear"
import { measureLiving } from "./living"
import { measurePhone } from "./phone"
import { measurePictures } from "./pictures"
import { measureShelf } from "./shelf"
import { measurePapers } from "./papers"
import { measureSpelling } from "./spelling"
import { measureTables } from "./tables"

const linear = measureLinear()
const living = await measureLiving()
const everything = measureEverything()
const files = measureFormats()
const spelling = measureSpelling()
const papers = measurePapers()
const browser = await launch()
const engine = await measureEngine(browser)
const growth = await measureGrowth(browser)
const desk = await measureDesk(browser, Math.round(100_000 / engine.sheets))
const phone = await measurePhone(browser, Math.round(100_000 / engine.sheets))
const tables = await measureTables(browser)
const shelf = await measureShelf(browser)
const pictures = await measurePictures(browser)
await browser.close()
const figures = Object.fromEntries(
  Object.entries({
    ...engine,
    ...desk,
    ...phone,
    ...growth,
    ...everything,
    ...living,
    ...linear,
    ...tables,
    ...pictures,
    ...shelf,
    ...spelling,
    ...papers,
    ...files,
  }).map(([name, value]) => [name, typeof value === "number" ? Math.round(value * 1000) / 1000 : value]),
)

if (process.argv.includes("--json")) console.log(JSON.stringify(figures))
else {
  const rows: [string, number, string][] = [
    ["whole layout, cold, against Chromium loading and printing", engine.layoutVsChromium, "0.25"],
    ["the same with a vocabulary of 20,000 words", engine.wideLayoutVsChromium, "0.25"],
    ["what the layout holds a sheet, kB", engine.memoryKbSheet, "15"],
    ["PDF from a finished layout, against the same", engine.pdfVsChromium, "1"],
    ["layout after a key in 1,000 sheets, ms", engine.keystrokeMs1000, "4"],
    ["the same against one sheet", engine.keystroke1000Vs1, "1.5"],
    ["the command from text to PDF, a whole process, against Chromium", engine.processVsChromium, "0.55"],
    ["5 MB of Office Open XML read, against another reader to HTML", files.docxVsMammoth, "0.25"],
    ["  written", files.docxWriteVsMammoth, "0.25"],
    ["the same as OpenDocument text, read", files.odtVsMammoth, "0.3"],
    ["  written", files.odtWriteVsMammoth, "0.3"],
    ["back to sheets from flow view, 1,500 paragraphs, ms", engine.switchMs, `cold ${Math.round(engine.switchColdMs)}`],
    ["key to painted glyph, one sheet, p95, ms", desk.paintP95Ms1, "16.7"],
    ["key to painted glyph, 1,000 sheets, p95, ms", desk.paintP95Ms1000, "16.7"],
    ["  of it work, without the wait for the display, p95, ms", desk.paintWorkP95Ms1000, "16.7"],
    ["1,000 sheets opened to the first sheet, ms", desk.openMs1000, "1000"],
    ["  until one can write there, ms", desk.readyMs1000, "none"],
    ["  opened again after an edit, ms", desk.openEditedMs1000, "1000"],
    ["wrong words in sight marked after one can write, 1,000 sheets, ms", desk.marksMs1000, "150"],
    [
      "a letter while the words of 1,000 sheets are to be looked up, against one with spelling off",
      desk.keyWhileSpelling,
      "1.1",
    ],
    ["phone, processor four times slower, 100 sheets: opened, ms", phone.phoneOpenMs, "1000"],
    ["  until one can write there, ms", phone.phoneReadyMs, "none"],
    ["  a letter, median, ms", phone.phoneKeyMs, "33"],
    [`  frames over 50 ms in a fling, of ${phone.phoneFrames}`, phone.phoneSlowFrames, "0"],
    ["longest task while typing in 1,000 sheets, ms", desk.longestTaskMs1000, "50"],
    ["a set taken in the middle of 1,000 sheets, to all in sight, ms", desk.restyleMs1000, "none"],
    ["key to painted glyph, 1,000 sheets, 10,000 marked places, p95, ms", desk.paintP95MsFound, "16.7"],
    ["all of typography on each sheet: layout, cold", engine.shapedLayoutVsChromium, "0.25"],
    ["  PDF from a finished layout", engine.shapedPdfVsChromium, "1"],
    ["  layout after a key in 1,000 sheets, ms", engine.shapedKeystrokeMs1000, "4"],
    ["  the same against one sheet", engine.shapedKeystroke1000Vs1, "1.5"],
    ["  key to painted glyph, p95, ms", desk.shapedPaintP95Ms1000, "16.7"],
    ["  of it work, p95, ms", desk.shapedPaintWorkP95Ms1000, "16.7"],
    ["  opened to the first sheet, ms", desk.shapedOpenMs1000, "1000"],
    ["  longest task while typing, ms", desk.shapedLongestTaskMs1000, "50"],
    ["100 sheets of HTML pasted, to the first sheet, ms", desk.pasteMs, "1000"],
    ["longest task of that paste, ms", desk.pasteLongestTaskMs, "50"],
    ["47,000 paragraphs of text pasted, to the first sheet, ms", desk.pasteMs47000, "none"],
    ["longest task of that paste, ms", desk.pasteLongestTaskMs47000, "50"],
    [`ten times the length of a paragraph, times the time (${linear.layoutLinearAt})`, linear.layoutLinear, "14"],
    ["a letter in one paragraph of 100,000 words, work, median, ms", growth.longParagraphKeyMs, "50"],
    ["Enter at the top of 10,000 numbered items, work, median, ms", growth.itemsEnterMs, "50"],
    ["a letter with 2,000 headings in the open outline, work, median, ms", growth.headingsKeyMs, "50"],
    [
      "columns, heads, notes, contents: layout, cold, against Chromium’s of the plain text",
      engine.everythingLayoutVsChromium,
      "0.35",
    ],
    ["  layout after a key in 1,000 sheets, ms", everything.everythingKeystrokeMs1000, "4"],
    ["  the same against one sheet", everything.everythingKeystroke1000Vs1, "1.5"],
    [
      "  work of a letter in 1,000 sheets against that in plain text, p95, typed by turns",
      desk.everythingPaintWorkVsPlain,
      "1.3",
    ],
    ["  time a sheet of 2,000 sheets against that of 20", everything.linear2000, "1.3"],
    ["  new margins in 1,000 sheets, to those in sight, ms", everything.marginsMs1000, "200"],
    ["  a letter in the head of 1,000 sheets, to those in sight, ms", everything.headerKeyMs1000, "33"],
    ["time a row in 10,000 rows of eight cells against 1,000", tables.tableLinear, "1.3"],
    ["  a letter in them, work, median, ms", tables.tableKeyMs, `16.7; p95 ${Math.round(tables.tableKeyP95Ms)}`],
    ["  2,000 rows laid out, against Chromium loading and printing them", tables.tableVsChromium, "0.5"],
    ["500 pictures opened to the first sheet, ms", pictures.pictures500OpenMs, "1000"],
    [`  frames over 50 ms in a fling, of ${pictures.picturesFrames}`, pictures.picturesSlowFrames, "0"],
    ["  a picture dragged over a full sheet, layout of a step, median, ms", pictures.floatDragMs, "16.7"],
    ["  the ground of 12 million pixels taken away, ms", pictures.backgroundMs, "none"],
    ["a paper of 100 sheets held against its brief, ms", papers.briefMs100, "300"],
    ["the same after a letter, ms", papers.briefAgainMs, "50"],
    ["a paper of 100 sheets looked through for what is untidy, ms", papers.tidyMs100, "300"],
    ["the same after a letter, ms", papers.tidyAgainMs, "50"],
    ["600 citations of 200 sources in another style, ms", papers.citationStyleMs, "1,000"],
    ["spelling of 1,000 sheets, against Hunspell alone on the words that differ", spelling.spellingVsHunspell, "1.2"],
    ["a shelf of 10,000 documents opened to its first row, ms", shelf.shelfOpenMs10000, "none"],
    ["  longest task while it opens, ms", shelf.shelfOpenTaskMs, "50"],
    ["  longest task in a fling, ms", shelf.shelfFlingTaskMs, "50"],
    ["  longest task while it is sorted by name, ms", shelf.shelfSortTaskMs, "50"],
    ["a file of 100 sheets brought in, to its first sheet on the screen, ms", shelf.importMs100, "1500"],
    ["100 sheets pressed on the shelf, until the first is seen, ms", shelf.pressedSeenMs, "500"],
    ["and until one can write there, ms", shelf.pressedReadyMs, "none"],
    ["letter to confirmation, 20 people in one document, median, ms", living.confirmMs20, "100"],
    ["  50 people", living.confirmMs50, "400"],
    ["  20 people, each in a document of their own", living.confirmMsApart20, "none"],
    ["server killed, to the content of 1,000 sheets, ms", living.restartMs, "none"],
    ["memory after 5,000 letters and 500 undos, kB", desk.memoryGrowthKb, `history ${Math.round(engine.historyKb)}`],
  ]
  for (const [what, value, budget] of rows)
    console.log(`${what.padEnd(68)} ${value.toFixed(3).padStart(9)}   budget ${budget}`)
  console.log(JSON.stringify(figures, null, 2))
}
