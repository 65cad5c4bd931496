export * from "./counting"
export * from "./spelling"
export * from "./statistics"
export * from "./tidy"
