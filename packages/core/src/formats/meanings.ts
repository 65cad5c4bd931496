/** What the names of a format mean here. One that is not listed means nothing, also if it is "constructor". */
export function meanings<T>(listed: Readonly<Record<string, T>>): (name: string | undefined) => T | undefined {
  const known = new Map(Object.entries(listed))
  return (name) => (name === undefined ? undefined : known.get(name))
}
