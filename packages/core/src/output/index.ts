export { createSubsetter, writePdf, writeImposed, type PdfOptions, type Subsetter } from "./pdf"
export { sheetPicture } from "./picture"
export {
  mostCopies,
  onBothSides,
  plainPrint,
  sheetsNamed,
  sidesOf,
  type Arrangement,
  type PrintPlan,
  type Side,
} from "./printing"
