export * from "./dictionaries"
export * from "./guessing"
export * from "./words"
