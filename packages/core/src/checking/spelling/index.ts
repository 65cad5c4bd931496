export * from "./dictionaries"
export * from "./guessing"
export type { Entry } from "./lexicon"
export * from "./words"
