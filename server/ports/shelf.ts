/** Computed answers kept until a fact they stand on changes. */
export interface Shelf {
  get: <Kept>(name: string, key: string) => Kept | undefined
  put: (name: string, key: string, kept: unknown) => void
  forget: (name: string, key: string) => void
  clear: () => void
}

/** Answers kept in this process. */
export function memoryShelf(): Shelf {
  const shelves = new Map<string, Map<string, unknown>>()
  const shelf = (name: string) => {
    const found = shelves.get(name) ?? new Map<string, unknown>()
    shelves.set(name, found)
    return found
  }
  return {
    // What lies under a name was put there by the same caller.
    get: <Kept>(name: string, key: string) => shelf(name).get(key) as Kept | undefined,
    put: (name, key, kept) => void shelf(name).set(key, kept),
    forget: (name, key) => void shelf(name).delete(key),
    clear: () => shelves.clear(),
  }
}
