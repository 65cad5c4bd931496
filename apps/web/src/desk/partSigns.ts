/** How the signs of parts are drawn. */
import type { PartName } from "@biblon/core/document"
import {
  Anchor,
  Boat,
  Bookmarks,
  BookOpen,
  CalendarBlank,
  Camera,
  ChartBar,
  Coins,
  Compass,
  Flag,
  HouseLine,
  Lifebuoy,
  MapTrifold,
  PenNib,
  Star,
  UsersThree,
  Waves,
  type Icon,
} from "../ui/icons"

type PartSign = NonNullable<PartName["sign"]>

export const partDrawings: Readonly<Record<PartSign, Icon>> = {
  anchor: Anchor,
  boat: Boat,
  waves: Waves,
  lifebuoy: Lifebuoy,
  compass: Compass,
  map: MapTrifold,
  book: BookOpen,
  pen: PenNib,
  camera: Camera,
  chart: ChartBar,
  coins: Coins,
  calendar: CalendarBlank,
  people: UsersThree,
  house: HouseLine,
  flag: Flag,
  star: Star,
}

/** The drawing of a part's sign, or the one of parts without. */
export const partDrawing = (sign: PartName["sign"]): Icon => (sign ? partDrawings[sign] : Bookmarks)
