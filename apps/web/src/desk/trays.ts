import type { ComponentType } from "react"
import { ClockCounterClockwise, MagicWand, Footprints, Globe, MagnifyingGlass, PaperPlaneTilt, PenNib, Question, Stamp, TreeStructure, type Icon } from "../ui/icons"
import type { TrayId } from "./store"
import { ChangesTray } from "./trays/ChangesTray"
import { CorrectionsTray } from "./trays/CorrectionsTray"
import { DeliverTray } from "./trays/DeliverTray"
import { FindTray } from "./trays/FindTray"
import { HelpTray } from "./trays/HelpTray"
import { PlaceTray } from "./trays/PlaceTray"
import { DocumentTray } from "./trays/DocumentTray"
import { StructureTray } from "./trays/structure/StructureTray"
import { TrailTray } from "./trays/TrailTray"
import { WriteTray } from "./trays/write/WriteTray"

export interface TrayKind {
  id: TrayId
  name: string
  icon: Icon
  /** Whether it is a stage of the work and so stands on the bench. */
  stage: boolean
  Content: ComponentType
}

/** The stages in the order of the work, then the trays that are opened from elsewhere. */
export const trays: readonly TrayKind[] = [
  { id: "write", name: "Write", icon: PenNib, stage: true, Content: WriteTray },
  { id: "structure", name: "Structure", icon: TreeStructure, stage: true, Content: StructureTray },
  { id: "place", name: "Place", icon: Stamp, stage: true, Content: PlaceTray },
  { id: "deliver", name: "Deliver", icon: PaperPlaneTilt, stage: true, Content: DeliverTray },
  { id: "trail", name: "Trail", icon: Footprints, stage: false, Content: TrailTray },
  { id: "document", name: "Document", icon: Globe, stage: false, Content: DocumentTray },
  { id: "changes", name: "What was done", icon: ClockCounterClockwise, stage: false, Content: ChangesTray },
  { id: "find", name: "Find and replace", icon: MagnifyingGlass, stage: false, Content: FindTray },
  { id: "corrections", name: "Corrections", icon: MagicWand, stage: false, Content: CorrectionsTray },
  { id: "help", name: "Help", icon: Question, stage: false, Content: HelpTray },
]

export function trayNamed(id: TrayId): TrayKind {
  return trays.find((tray) => tray.id === id) as TrayKind
}
