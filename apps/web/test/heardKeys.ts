/** A document of which only is known what listens to it. To be imported before what listens. */
export const heard = new Map<string, () => void>()

Object.assign(globalThis, { document: { addEventListener: (name: string, hear: () => void) => heard.set(name, hear) } })
