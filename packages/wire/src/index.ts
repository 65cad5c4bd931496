/**
 * What app and server say to each other. The server checks what comes in with these schemas; the app
 * imports their types only.
 */
import { z } from "zod"

export * from "./limits"

const Id = z.string().regex(/^[A-Za-z0-9_-]{8,40}$/)

/** A document as the shelf shows it. */
export const ShelfEntry = z.object({
  id: Id,
  /** null for a document that was never named. */
  name: z.string().nullable(),
  /** The first words of its text, to tell unnamed documents apart; empty if there are none. */
  opening: z.string(),
  /** Milliseconds since 1970. */
  created: z.number(),
  changed: z.number(),
  version: z.number().int(),
  /** The folder that it lies in; null on the shelf itself. */
  folder: Id.nullable(),
  /** How many sheets it has; null where they were not counted for this version. */
  sheets: z.number().int().nullable(),
})

/** A folder of the shelf; `folder` is the one that it lies in. */
export const Folder = z.object({
  id: Id,
  name: z.string().nullable(),
  folder: Id.nullable(),
  created: z.number(),
})

/** All that lies on the shelf, with what lies in the bin. */
export const ShelfContents = z.object({
  documents: z.array(ShelfEntry),
  folders: z.array(Folder),
  binned: z.array(ShelfEntry),
})

const Name = z.string().trim().max(200).nullable()

/** What becomes of a document or a folder; what is not named stays. A folder that is `gone: false` is made. */
export const ShelfChange = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("document"),
    id: Id,
    name: Name.optional(),
    folder: Id.nullable().optional(),
    binned: z.boolean().optional(),
    /** Out of the bin for good; swept away a day later. */
    removed: z.boolean().optional(),
  }),
  z.object({
    kind: z.literal("folder"),
    id: Id,
    name: Name.optional(),
    folder: Id.nullable().optional(),
    gone: z.boolean().optional(),
  }),
])

/** Changes that are made together or not at all. */
export const ShelfChanges = z.object({ changes: z.array(ShelfChange).min(1).max(50_000) })

/** A document in which something was found, and where: a sentence with the words between the signs U+0001 and U+0002. */
export const FoundDocument = z.object({ entry: ShelfEntry, sentence: z.string().nullable() })

export const Rename = z.object({ name: Name })

/** A document that is begun: blank, or as a copy of a starter. */
export const Begun = z.object({ starter: Id.optional(), folder: Id.nullable().optional() })

/** A document that is kept as a new one: a name, the document node, and the folder that it lies in. */
export const NewDocument = z.object({ name: Name, document: z.unknown(), folder: Id.nullable().optional() })

/** A document to begin from. */
export const Starter = z.object({
  id: Id,
  name: z.string(),
  /** What it is for, such as "Letters"; null for people's own. */
  purpose: z.string().nullable(),
  version: z.number().int(),
})

/** App to server, over the WebSocket at /live/ID?since=VERSION&stamp=STAMP&person=PERSON. */
export const FromApp = z.discriminatedUnion("type", [
  z.object({
    type: z.literal("steps"),
    /** The version that the steps follow on. */
    version: z.number().int().min(0),
    steps: z.array(z.record(z.string(), z.unknown())).min(1).max(5000),
    client: z.string().min(1).max(60),
  }),
])

/** Who changes a document: a name that a browser gives itself, until people have accounts. Empty where nobody said. */
export const Person = z.string().regex(/^[A-Za-z0-9_-]{0,60}$/)

/** Changes of one client that were saved together. They follow on each other; pages bring their own up to date batch by batch, as the server does. */
export const StepBatch = z.object({
  client: z.string(),
  person: Person,
  /** When they were saved, in milliseconds since 1970; later than the batch before. */
  saved: z.number(),
  steps: z.array(z.record(z.string(), z.unknown())),
})

export const FromServer = z.discriminatedUnion("type", [
  /** First message: all is sent up to this version; what the app has pending may be sent now. */
  z.object({ type: z.literal("ready"), version: z.number().int(), name: z.string().nullable() }),
  /** Steps that are in the database, in order; `version` is the one that the first batch follows on. */
  z.object({ type: z.literal("steps"), version: z.number().int(), batches: z.array(StepBatch) }),
  /** The steps could not be brought up to date here: send them again on top of what came in between. */
  z.object({ type: z.literal("behind"), version: z.number().int() }),
  /** The first of the steps that are not confirmed does not fit the document. Sending it again will not help. */
  z.object({ type: z.literal("refused"), reason: z.string() }),
  /** The steps fit but could not be written. Sending them again later will help. */
  z.object({ type: z.literal("postponed"), reason: z.string() }),
  /** The copy of the document that the app has is none of this server's history. The connection ends. */
  z.object({ type: z.literal("unfit"), reason: z.string() }),
  z.object({ type: z.literal("renamed"), name: z.string().nullable() }),
])

/** A font file that was taken in. */
export const AddedFont = z.object({
  /** Its SHA-256, under which it is kept. */
  asset: z.string(),
  family: z.string(),
  variant: z.enum(["regular", "italic", "bold", "boldItalic"]),
})

/** The file of a picture that was taken in, and its size in pixels. */
export const AddedFile = z.object({ asset: z.string() })
export const AddedPicture = z.object({ asset: z.string(), width: z.number(), height: z.number() })

/** What is handed over to the outside: its first line as JSON, then the bytes of the file. */
export const JobHead = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("print"),
    /** Made by who hands it over, so that what is handed over twice is done once. */
    id: Id,
    name: z.string().max(200),
    media: z.string().max(120),
    /** Sides of paper, where they were counted. */
    sides: z.number().int().min(1).max(1_000_000).nullable(),
  }),
  z.object({
    kind: z.literal("send"),
    id: Id,
    name: z.string().max(200),
    media: z.string().max(120),
    to: z
      .string()
      .trim()
      .max(500)
      .regex(/^[^\s@,;]+@[^\s@,;]+\.[^\s@,;]+(\s*[,;]\s*[^\s@,;]+@[^\s@,;]+\.[^\s@,;]+)*$/),
    subject: z.string().max(300),
    words: z.string().max(20_000),
  }),
])

/** What keeps the printer, or the post, from going on. */
export const Trouble = z.enum(["paper", "jam", "line"])
export const TroubleChange = z.object({ trouble: Trouble.nullable() })

export const Job = z.object({
  head: JobHead,
  size: z.number(),
  state: z.enum(["waiting", "going", "done", "stopped"]),
  /** Why it waits, in words. */
  reason: z.string().nullable(),
  /** How far it is, from 0 to 1. */
  progress: z.number(),
  tries: z.number(),
  made: z.number(),
  ended: z.number().nullable(),
})

export const Outside = z.object({
  jobs: z.array(Job),
  troubles: z.object({ print: Trouble.nullable(), send: Trouble.nullable() }),
})

/** Every error of the API. */
export const Problem = z.object({ message: z.string() })

export type JobHead = z.infer<typeof JobHead>
export type Job = z.infer<typeof Job>
export type Trouble = z.infer<typeof Trouble>
export type Outside = z.infer<typeof Outside>
export type AddedFile = z.infer<typeof AddedFile>
export type AddedPicture = z.infer<typeof AddedPicture>
export type ShelfEntry = z.infer<typeof ShelfEntry>
export type Folder = z.infer<typeof Folder>
export type ShelfContents = z.infer<typeof ShelfContents>
/** One meaning of a word. */
export const Meaning = z.object({
  part: z.enum(["noun", "verb", "adjective", "adverb"]),
  sense: z.string(),
  examples: z.array(z.string()),
  /** Others that mean the same. */
  words: z.array(z.string()),
})
export const Meanings = z.object({ word: z.string(), meanings: z.array(Meaning) })

/** Something that the library holds, with passages and the pages on which they stand. */
export const Work = z.object({
  id: z.string(),
  kind: z.enum(["book", "article-journal"]),
  authors: z.array(z.object({ family: z.string(), given: z.string() })),
  title: z.string(),
  year: z.number().int(),
  publisher: z.string().optional(),
  place: z.string().optional(),
  journal: z.string().optional(),
  volume: z.string().optional(),
  issue: z.string().optional(),
  pages: z.string().optional(),
  passages: z.array(z.object({ words: z.string(), page: z.string() })),
})

/** How the library answers: that is provoked, to see that one can live with it. */
export const LibraryMood = z.enum(["well", "slow", "silent"])
export const LibraryChange = z.object({ mood: LibraryMood })

export type ShelfChange = z.infer<typeof ShelfChange>
export type FoundDocument = z.infer<typeof FoundDocument>
export type Rename = z.infer<typeof Rename>
export type Starter = z.infer<typeof Starter>
export type NewDocument = z.infer<typeof NewDocument>
export type StepBatch = z.infer<typeof StepBatch>
export type FromApp = z.infer<typeof FromApp>
export type FromServer = z.infer<typeof FromServer>
export type AddedFont = z.infer<typeof AddedFont>
export type Problem = z.infer<typeof Problem>
export type Meaning = z.infer<typeof Meaning>
export type Meanings = z.infer<typeof Meanings>
export type Work = z.infer<typeof Work>
export type LibraryMood = z.infer<typeof LibraryMood>
