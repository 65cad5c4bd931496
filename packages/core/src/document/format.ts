/**
 * The number of the form in which documents are written down, in files and in the server's database alike. It is raised
 * when what is written gains something that a document of before lacks; `reading.ts` knows how each of before is brought up.
 *
 * 1: lists, typefaces and typesetting may be missing. 2: a setup has paper and margins alone. 3: heads, feet, columns and numbers too. 4: frames,
 * watermarks, covers, columns that differ, numbering of notes, more properties. 5: what checking goes by.
 * 6: the brief, sources. 7: enclosures. 8: parts, comments, what is kept of other programs. 9: remarks that were left.
 */
export const documentFormat = 9
