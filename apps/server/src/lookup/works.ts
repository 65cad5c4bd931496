/** The holdings of the library that ships: articles and books that somebody of our world could have written. Nothing in it is true. */
import type { Work } from "@biblon/wire"

const people: readonly (readonly [family: string, given: string])[] = [
  ["Orrin", "Tamsin"],
  ["Pellow", "Hester"],
  ["Vane", "Lucas"],
  ["Achterberg", "Miep"],
  ["Dunmore", "Aled"],
  ["Quayle", "Rosalind"],
  ["Sandvik", "Einar"],
  ["Trewin", "Jory"],
  ["Okafor", "Adaeze"],
  ["Lindqvist", "Maja"],
  ["Harrow", "Edmund"],
  ["Castell", "Nuria"],
]

const journals = [
  "Journal of Estuary Crossings",
  "Tidal Studies Quarterly",
  "Annals of Small Ferries",
  "Coast and Clock",
] as const
const presses = [
  ["Mudlark Press", "Saltmarsh"],
  ["Slipway Books", "Wexcombe"],
  ["Harbour University Press", "Port Ellan"],
] as const

interface Topic {
  /** What it is about, as it stands in titles. */
  about: string
  titles: readonly string[]
  passages: readonly string[]
}

const topics: readonly Topic[] = [
  {
    about: "tide tables",
    titles: ["Reading the Water", "The Clock and the Moon", "Printed Tides"],
    passages: [
      "A tide table is a promise that the moon makes and the printer keeps.",
      "On most days the water came within a quarter of an hour of the printed time, which was near enough for a ferry and too far for a railway.",
      "Passengers who could not read a tide table learned to read the posts instead, on which the weed ends where the water does.",
      "The table was pinned up inside out on feast days, so that nobody would know how late the last boat went.",
    ],
  },
  {
    about: "chain ferries",
    titles: ["Links across the Water", "Hauled by Hand", "The Ferry that Could Not Drift"],
    passages: [
      "A chain ferry cannot be late by losing its way; it can only be late by being loved too well and loaded too far.",
      "Two people haul a full boat across in nine minutes at slack water, and in twenty against the ebb.",
      "The chain lies on the bed when nobody pulls, and every boat that passes over it believes the water to be empty.",
      "What the hand learns on the chain is patience: it comes up at its own pace or not at all.",
    ],
  },
  {
    about: "timetables",
    titles: ["Minutes that Matter", "Waiting as a Public Good", "The Board at the Slip"],
    passages: [
      "A timetable is ruled by the clock, and an estuary is not; whoever writes one for the other has to choose whom to disappoint.",
      "People forgive a boat that is late for the tide, but not one that is late for its crew.",
      "Where the board named the hour of high water, complaints fell by half, although no boat went any sooner.",
      "The earliest boards gave no times at all, but the order in which things would happen.",
    ],
  },
  {
    about: "harbour dues",
    titles: ["A Penny a Head", "Tolls and Tempers", "Accounts of a Small Port"],
    passages: [
      "Dues were paid for dogs by their height, which led to a good deal of crouching.",
      "The ledger shows that the ferry earned more by carrying letters than by carrying the people who wrote them.",
      "In a poor year the harbour master paid the ferryman in rope, and in a very poor one in promises.",
      "No due was ever asked of the doctor or the bride.",
    ],
  },
  {
    about: "slipways",
    titles: ["Stones under Water", "The Art of Landing", "Where the Road Ends"],
    passages: [
      "A slipway that is safe at every height of the water is longer than the street that leads to it.",
      "Weed is scraped from the stones on Fridays, and grows back in time for Sunday's shoes.",
      "The slope was laid for carts, and the wheel of the first motor car went down it faster than its owner.",
      "Steps are a kindness to the knee and a danger to the cask.",
    ],
  },
  {
    about: "saltmarsh birds",
    titles: ["Redshank and Rope", "Neighbours on the Mud", "What the Ferry Disturbs"],
    passages: [
      "The birds rise for a motor and stay for a hand on the chain.",
      "Counts made from the ferry agree with counts made from the hide, and are better attended.",
      "A redshank that nests within sight of the slip learns the timetable sooner than the visitors do.",
      "After the bridge was opened, the marsh was quieter, and the birds no more numerous.",
    ],
  },
  {
    about: "fog signals",
    titles: ["A Bell for Nobody", "Sound over Water", "Hearing the Far Bank"],
    passages: [
      "In fog the far bank is a voice that asks whether you are coming.",
      "A bell is heard farther over a falling tide than over a rising one, though nobody has said why.",
      "The ferryman's whistle had three notes: come, wait, and go home.",
      "What cannot be seen has to be agreed upon beforehand.",
    ],
  },
  {
    about: "bridges",
    titles: ["The Case for Crossing Slowly", "After the Bridge", "Two Ways over One Water"],
    passages: [
      "A bridge takes the water out of the journey, and with it the reason for arriving together.",
      "Within five years of the bridge the ferry had closed, and within ten there were people who wished to have it back.",
      "A bridge has to be paid for before anybody crosses; a ferry, only when somebody does.",
      "Nobody meets anybody on a bridge.",
    ],
  },
  {
    about: "volunteers",
    titles: ["Hands on the Chain", "The Unpaid Crew", "Why People Haul"],
    passages: [
      "Those who came for the boat stayed for the tea, and those who came for the tea learned to haul.",
      "A trust of forty members can run a ferry in summer, and one of sixty can run it in the rain.",
      "Asked why they gave their Saturdays, most said that somebody had waited for them once.",
      "A volunteer leaves when nobody notices that they came.",
    ],
  },
  {
    about: "passengers",
    titles: ["Who Goes Across", "Baskets, Bicycles, Prams", "A Census of the Crossing"],
    passages: [
      "On market days one passenger in three carried something alive.",
      "Children crossed twice, once for the other side and once for the boat.",
      "The commonest question is when the boat goes, and the second commonest is why it does not.",
      "People stand on the side from which they will step off, long before there is anything to step off to.",
    ],
  },
]

/** A number that is always the same for the same three numbers. */
const mixed = (a: number, b: number, of: number) => ((a * 7919 + b * 104_729 + 31) >>> 0) % of

function workOf(topic: Topic, t: number, n: number): Work {
  const [first, second] = [people[mixed(t, n, people.length)], people[mixed(t + 3, n + 5, people.length)]]
  const authors = [first, ...(n % 3 === 1 && second !== first ? [second] : [])].flatMap((own) =>
    own ? [{ family: own[0], given: own[1] }] : [],
  )
  const begins = 3 + mixed(t, n + 2, 180)
  const [lead = ""] = [topic.titles[n % topic.titles.length]]
  const book = n % 4 === 0
  const year = 1994 + mixed(t + 1, n, 31)
  const [publisher = "", place = ""] = presses[(t + n) % presses.length] ?? []
  const passages = topic.passages
    .filter((_own, i) => (i + n) % 2 === 0 || n % 5 === 0)
    .map((words, i) => ({ words, page: String(begins + 1 + i * 3) }))
  return {
    id: `${topic.about.replace(/\W+/g, "-")}-${n + 1}`,
    kind: book ? "book" : "article-journal",
    authors,
    title:
      n < topic.titles.length
        ? `${lead}: ${["Notes on", "A History of", "Essays on"][n]} ${topic.about}`
        : `${lead}: ${["A Survey of", "New Light on", "Questions about", "The Uses of"][n % 4]} ${topic.about}, ${year - 12 - mixed(t, n, 60)}–${year - 2 - (n % 7)}`,
    year,
    ...(book
      ? { publisher, place }
      : {
          journal: journals[(t + n) % journals.length] ?? "",
          volume: String(4 + mixed(t, n + 1, 38)),
          issue: String(1 + (n % 4)),
          pages: `${begins}–${begins + 14}`,
        }),
    passages,
  }
}

const ofTopic = 13

/** All that the library holds. */
export const works: readonly Work[] = topics.flatMap((topic, t) =>
  Array.from({ length: ofTopic }, (_, n) => workOf(topic, t, n)),
)
