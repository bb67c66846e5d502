/** How far long work is. */
export interface Step {
  done: number
  total: number
  /** What is counted: rows, photographs, check-ins. */
  of: string
}

/** What long work tells, and asks, while it goes on. */
export interface Progress {
  tell: (step: Step) => void
  /** @throws Stopped once somebody has given the work up */
  stopped: () => void
}

/** The work was given up by whoever started it. */
export class Stopped extends Error {
  constructor() {
    super('This was given up: nothing was changed.')
  }
}

/** Progress of a signal: stopped when it is. */
export function progressOf(signal: AbortSignal, tell: (step: Step) => void = () => undefined): Progress {
  return {
    tell,
    stopped() {
      if (signal.aborted) throw new Stopped()
    },
  }
}

/** For work nobody watches. */
export const UNWATCHED: Progress = { tell: () => undefined, stopped: () => undefined }
