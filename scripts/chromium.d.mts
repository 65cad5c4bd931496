export declare const chromiumOptions: { executablePath: string; args: string[] }
export declare const journeyOptions: typeof chromiumOptions
