import type { ComponentType } from "react"
import type { StageId } from "./store"
import { DeliverTray } from "./trays/DeliverTray"
import { StructureTray } from "./trays/StructureTray"
import { WriteTray } from "./trays/WriteTray"
import { PaperPlaneTilt, PenNib, TreeStructure, type Icon } from "../ui/icons"

export interface Stage {
  id: StageId
  name: string
  icon: Icon
  Content: ComponentType
}

/** The stages of the bench, in the order of the work. */
export const stages: readonly Stage[] = [
  { id: "write", name: "Write", icon: PenNib, Content: WriteTray },
  { id: "structure", name: "Structure", icon: TreeStructure, Content: StructureTray },
  { id: "deliver", name: "Deliver", icon: PaperPlaneTilt, Content: DeliverTray },
]

export function stageNamed(id: StageId): Stage {
  return stages.find((stage) => stage.id === id) as Stage
}
