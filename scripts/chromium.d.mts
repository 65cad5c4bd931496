export declare const chromiumOptions: { executablePath: string; args: string[] }
export declare const journeyOptions: typeof chromiumOptions
export declare const togetherOptions: typeof chromiumOptions
