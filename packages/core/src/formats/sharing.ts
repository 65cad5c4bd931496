/** Gives equal values as one object, so that they are checked and compared once. */
export function sharing<T extends object>(): (value: T) => T {
  const known = new Map<string, T>()
  return (value) => {
    const key = JSON.stringify(value)
    const shared = known.get(key) ?? value
    known.set(key, shared)
    return shared
  }
}
