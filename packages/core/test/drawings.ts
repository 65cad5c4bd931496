/** Drawings made by hand: a murex rectangle on the left half of a sheet 60 mm wide and 30 mm high. */

/** Numbers one after another, each of so many bytes. */
function numbers(size: 2 | 4, values: readonly number[]): Uint8Array {
  const data = new DataView(new ArrayBuffer(values.length * size))
  values.forEach((value, i) => (size === 2 ? data.setInt16(i * 2, value, true) : data.setInt32(i * 4, value | 0, true)))
  return new Uint8Array(data.buffer)
}
const joined = (...parts: readonly Uint8Array[]) => Uint8Array.from(parts.flatMap((part) => [...part]))
const murex = 0x004f1f7a

export function enhancedMetafile(): Uint8Array {
  const body = numbers(4, [39, 24, 1, 0, murex, 0, 37, 12, 1, 43, 24, 0, 0, 100, 100, 14, 20, 0, 16, 20])
  const head = [1, 88, 0, 0, 200, 100, 0, 0, 6000, 3000, 0x464d4520, 0x10000, 88 + body.length, 5, 2, 0, 0, 0]
  return joined(numbers(4, head), numbers(4, [1000, 500, 300, 150]), body)
}

/** @param placed whether it says before anything else how large it is */
export function olderMetafile(placed: boolean): Uint8Array {
  const records = [
    [5, 0, 0x020c, 100, 200],
    [7, 0, 0x02fc, 0, murex & 0xffff, murex >> 16, 0],
    [4, 0, 0x012d, 0],
    [7, 0, 0x041b, 100, 100, 0, 0],
    [3, 0, 0],
  ]
  const words = records.reduce((sum, { length }) => sum + length, 9)
  const head = [1, 9, 0x300, words, 0, 1, 7, 0, 0]
  // 60 mm are 3,402 of 1,440 to the inch.
  const own = [0xcdd7 - 0x10000, 0x9ac6 - 0x10000, 0, 0, 0, 3402, 1701, 1440, 0, 0, 0]
  return joined(placed ? numbers(2, own) : new Uint8Array(), numbers(2, [...head, ...records.flat()]))
}

export const vectorDrawing = (size = 'width="60mm" height="30mm"') =>
  new TextEncoder().encode(
    `<?xml version="1.0"?><!-- by hand --><svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 200 100"><rect width="100" height="100" fill="#7a1f4f"/></svg>`,
  )

/** A picture of a text of Office Open XML, 6 by 3 cm, by the relation to its file. */
export const pictureRun = (relation: string) =>
  `<w:r><w:drawing><wp:inline xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"><wp:extent cx="2160000" cy="1080000"/><wp:docPr id="1" name="Drawing"/><a:graphic><a:graphicData><pic:pic><pic:blipFill><a:blip r:embed="${relation}"/></pic:blipFill><pic:spPr/></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`
