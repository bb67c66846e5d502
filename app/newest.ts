/**
 * Sends values of things, one at a time for each thing, always the newest: a value overtaken while another is on its way
 * is left out, so that an older one can never arrive last.
 *
 * @param send sends one value of one thing; when it fails, the failure goes to who waits, and what came after is still sent
 * @returns takes a value of a thing; settles when nothing of that thing is left to send
 */
export function newestOnly<T>(
  send: (id: string, value: T) => Promise<unknown>,
): (id: string, value: T) => Promise<void> {
  const waiting = new Map<string, T>()
  const under = new Map<string, Promise<void>>()
  async function sendAll(id: string): Promise<void> {
    let failed: unknown
    for (;;) {
      if (!waiting.has(id)) break
      const value = waiting.get(id) as T
      waiting.delete(id)
      failed = await send(id, value).then(
        () => undefined,
        (error: unknown) => error,
      )
    }
    under.delete(id)
    if (failed !== undefined) throw failed
  }
  return (id, value) => {
    waiting.set(id, value)
    const on = under.get(id) ?? sendAll(id)
    if (!under.has(id)) under.set(id, on)
    return on
  }
}
