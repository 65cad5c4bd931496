export declare function programNamed(name: "biblon" | "server" | "pictures" | "cold" | "spelling"): string
