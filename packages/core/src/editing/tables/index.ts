export * from "./formatting"
export * from "./formulas"
export * from "./inserting"
export * from "./joining"
export * from "./moving"
export { addColumns, addRows, deleteColumns, deleteRows, deleteTable, nextCell } from "./rows"
export {
  cellsIn,
  CellSelection,
  partOf,
  selectedRect,
  selectionBetween,
  selectRect,
  stretchesOf,
  type Rect,
  type TableRect,
} from "./selection"
export { selectCells, selectTable } from "./selecting"
export { sortedRows, sortRows, type SortKey } from "./sorting"
