declare global {
  /** Answers the page itself asked for before there was any code (app/ask-first.js), by path; undefined: none came. */
  var askedFirst: Record<string, Promise<object | undefined>> | undefined
}

/** Milliseconds for which an answer asked for ahead is taken; later, the facts may have changed. */
export const FRESH_MS = 5000

/**
 * What the page has asked for by itself, taken once while it is fresh; else, and where that was refused or did not come,
 * it is asked for now: refusals are dealt with there.
 * @param now milliseconds since the page began
 */
export function askedFirst<Answer>(path: string, ask: () => Promise<Answer>, now = performance.now()): Promise<Answer> {
  const { [path]: first, ...others } = globalThis.askedFirst ?? {}
  globalThis.askedFirst = others
  if (!first || now > FRESH_MS) return ask()
  return first.then((answer) => (answer === undefined ? ask() : (answer as Answer)))
}

/** Drops what has not been taken: whoever changes something, or signs in, asks anew. */
export function forgetAskedFirst(): void {
  globalThis.askedFirst = undefined
}
