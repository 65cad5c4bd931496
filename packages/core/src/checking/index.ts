export * from "./statistics"
