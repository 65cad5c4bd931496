export { createSubsetter, writePdf, type PdfOptions, type Subsetter } from "./pdf"
export { sheetPicture } from "./picture"
