/** The trays of the desk. What is in them: trays/contents.ts. */
import {
  Article,
  BookOpen,
  ClockCounterClockwise,
  ListMagnifyingGlass,
  MagicWand,
  FileArrowUp,
  Footprints,
  Globe,
  MagnifyingGlass,
  PaperPlaneTilt,
  PenNib,
  Question,
  Stamp,
  TreeStructure,
  type Icon,
} from "../ui/icons"
import type { TrayId } from "./store"

export interface TrayKind {
  id: TrayId
  name: string
  icon: Icon
  /** Whether it is a stage of the work and so stands on the bench. */
  stage: boolean
}

/** The stages in the order of the work, then the trays that are opened from elsewhere. */
export const trays: readonly TrayKind[] = [
  { id: "write", name: "Write", icon: PenNib, stage: true },
  { id: "structure", name: "Structure", icon: TreeStructure, stage: true },
  { id: "place", name: "Place", icon: Stamp, stage: true },
  { id: "sheet", name: "Sheet", icon: Article, stage: true },
  { id: "check", name: "Check", icon: ListMagnifyingGlass, stage: true },
  { id: "deliver", name: "Deliver", icon: PaperPlaneTilt, stage: true },
  { id: "trail", name: "Trail", icon: Footprints, stage: false },
  { id: "document", name: "Document", icon: Globe, stage: false },
  { id: "changes", name: "What was done", icon: ClockCounterClockwise, stage: false },
  { id: "find", name: "Find and replace", icon: MagnifyingGlass, stage: false },
  { id: "lookup", name: "Look up", icon: BookOpen, stage: false },
  { id: "corrections", name: "Corrections", icon: MagicWand, stage: false },
  { id: "brought", name: "What came otherwise", icon: FileArrowUp, stage: false },
  { id: "help", name: "Help", icon: Question, stage: false },
]

export function trayNamed(id: TrayId): TrayKind {
  return trays.find((tray) => tray.id === id) as TrayKind
}
