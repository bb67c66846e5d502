import { pino } from 'pino'
import type { H3Event } from 'h3'

/** Lines of JSON on standard output. They hold ids, never names, addresses, passwords or what was measured. */
export const log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime })

/** What of an error is safe to write down: a database's message and parameters hold people's data. */
export function errorFacts(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { name: typeof error }
  const { name, stack, cause } = error
  const { code, constraint, table, routine } = error as {
    [Key in 'code' | 'constraint' | 'table' | 'routine']?: unknown
  }
  // The first line of a stack is the message: only the places are kept.
  const at = stack
    ?.split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 8)
  return {
    name,
    ...Object.fromEntries(
      Object.entries({ code, constraint, table, routine }).filter(([, value]) => value !== undefined),
    ),
    at,
    ...(cause === undefined ? {} : { cause: errorFacts(cause) }),
  }
}

/** The same log, with the id of a request on every line. */
export function logOf(event: H3Event) {
  return log.child({ request: event.context.requestId })
}
