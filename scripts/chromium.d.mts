export declare const chromiumOptions: { executablePath: string; args: string[] }
