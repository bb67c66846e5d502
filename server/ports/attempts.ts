/** How fast somebody may guess: so many at once, then one after a delay that doubles up to a longest one. */
export interface Pace {
  free: number
  firstMs: number
  longestMs: number
}

/** Whose attempts are counted together. Accounts that exist are never pushed out by ones made up. */
export interface Counted {
  key: string
  pace: Pace
  /** False: somebody anybody can make up; only so many of those are remembered. */
  real: boolean
}

/** Counts attempts to get in before they are tried, so that guesses sent together count one by one. */
export interface Attempts {
  /** Counts an attempt with each of these, or with none of them when one has to wait. @returns ms to wait, 0: go on */
  begin: (counted: readonly Counted[], now?: number) => Promise<number>
  /** Takes an attempt that turned out right off the count; with `clear` all before it too. */
  succeeded: (key: string, clear: boolean) => Promise<void>
}

interface Count {
  made: number
  nextAt: number
}

/** After so long without a try nothing is counted any more, ms. */
export const FORGOTTEN_AFTER_MS = 60 * 60 * 1000
const MADE_UP = 20_000

/** Milliseconds to wait after the n-th attempt. */
export function delayAfter(made: number, { free, firstMs, longestMs }: Pace): number {
  return made < free ? 0 : Math.min(longestMs, firstMs * 2 ** (made - free))
}

/** Attempts counted in this process. A restart forgets them. */
export function memoryAttempts(): Attempts {
  const real = new Map<string, Count>()
  const madeUp = new Map<string, Count>()
  const countOf = ({ key, real: is }: Counted, now: number): Count => {
    const found = (is ? real : madeUp).get(key)
    return found && now - found.nextAt < FORGOTTEN_AFTER_MS ? found : { made: 0, nextAt: now }
  }
  return {
    // Counted before anything is waited for: guesses sent together count one by one.
    begin(counted, now = Date.now()) {
      const counts = counted.map((one) => ({ one, count: countOf(one, now) }))
      const wait = Math.max(0, ...counts.map(({ count }) => count.nextAt - now))
      if (wait > 0) return Promise.resolve(wait)
      for (const { one, count } of counts) {
        const made = count.made + 1
        const where = one.real ? real : madeUp
        // Last tried, last forgotten.
        where.delete(one.key)
        where.set(one.key, { made, nextAt: now + delayAfter(made, one.pace) })
        const [oldest] = madeUp.keys()
        if (madeUp.size > MADE_UP && oldest !== undefined) madeUp.delete(oldest)
      }
      return Promise.resolve(0)
    },
    succeeded(key, clear) {
      for (const where of [real, madeUp]) {
        const count = where.get(key)
        if (!count) continue
        if (clear || count.made <= 1) where.delete(key)
        else where.set(key, { made: count.made - 1, nextAt: 0 })
      }
      return Promise.resolve()
    },
  }
}
