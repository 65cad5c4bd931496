export declare function programNamed(name: "biblon" | "server" | "pictures" | "cold"): string
