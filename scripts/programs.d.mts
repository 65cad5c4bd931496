type Program = "biblon" | "server" | "pictures" | "cold" | "spelling" | "formats"
export declare function programNamed(name: Program): string
export declare function loadProgram(name: Program): unknown
