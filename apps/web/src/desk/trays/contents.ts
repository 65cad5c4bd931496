/** What is in the trays. */
import type { ComponentType } from "react"
import type { TrayId } from "../store"
import { BroughtTray } from "./BroughtTray"
import { ChangesTray } from "./ChangesTray"
import { CheckTray } from "./check/CheckTray"
import { CorrectionsTray } from "./CorrectionsTray"
import { DeliverTray } from "./DeliverTray"
import { DocumentTray } from "./DocumentTray"
import { FindTray } from "./FindTray"
import { HelpTray } from "./HelpTray"
import { LookUpTray } from "./lookup/LookUpTray"
import { PlaceTray } from "./place/PlaceTray"
import { TrailTray } from "./TrailTray"
import { SheetTray } from "./sheet/SheetTray"
import { StructureTray } from "./structure/StructureTray"
import { WriteTray } from "./write/WriteTray"

export const contents: Readonly<Record<TrayId, ComponentType>> = {
  write: WriteTray,
  structure: StructureTray,
  place: PlaceTray,
  sheet: SheetTray,
  deliver: DeliverTray,
  trail: TrailTray,
  document: DocumentTray,
  changes: ChangesTray,
  find: FindTray,
  corrections: CorrectionsTray,
  brought: BroughtTray,
  check: CheckTray,
  lookup: LookUpTray,
  help: HelpTray,
}
