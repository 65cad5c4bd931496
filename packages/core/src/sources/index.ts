export * from "./citer"
export * from "./csl"
export * from "./styles"
export * from "./writing"
