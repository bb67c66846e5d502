import { send, setResponseHeader, setResponseStatus, type H3Error } from 'h3'
import type { NitroErrorHandler } from 'nitropack/types'
import type { FieldProblem, Problem } from '../../shared/schemas/problem'
import { IdTaken } from '../write/same-again'
import { asDamage } from '../exchange/backup-checks'
import { noteDamage } from '../jobs/note-damage'
import { failure } from './failure'
import { errorFacts, logOf } from './log'
import { isOutOfOrder } from './out-of-order'

const SENTENCES: Record<number, string> = {
  404: 'There is nothing at this address.',
  405: 'This address does not take that kind of request.',
  429: 'Too many requests from here. Please wait a few minutes.',
}

const TROUBLE = 'Something went wrong on our side. What was stored before is safe.'

function sentence(status: number, message: string): string {
  if (status === 503) return message
  if (status >= 500) return TROUBLE
  return SENTENCES[status] && !message.includes(' ') ? SENTENCES[status] : message
}

/** An error as the answer it is meant to be: what a route did not translate itself. */
function asAnswer(error: H3Error): H3Error {
  const causes = [error, error.cause, (error.cause as Error | undefined)?.cause]
  const taken = causes.find((cause) => cause instanceof IdTaken)
  if (taken instanceof IdTaken) {
    return failure(
      409,
      taken.message,
      taken.ids.map((id) => ({ field: id, message: taken.message })),
    )
  }
  const stopped = isOutOfOrder(causes)
  if (stopped) return failure(503, stopped)
  const damage = asDamage(error)
  if (!damage) return error
  noteDamage(damage)
  return failure(503, `${damage.message} Please tell a lead coach: it is shown under Studio, Data.`)
}

/** Every error leaves as one shape, without stack or internals. */
const onError: NitroErrorHandler = async (thrown, event) => {
  const error = asAnswer(thrown)
  const status = error.statusCode || 500
  if (status >= 500) logOf(event).error({ what: 'failed', status, method: event.method, ...errorFacts(thrown) })
  const data = error.data as (Partial<Problem> & { fields?: FieldProblem[] }) | undefined
  const known = SENTENCES[status]
  const message = error.message === error.statusMessage && known ? known : sentence(status, error.message)
  const problem: Problem = {
    message,
    fields: data?.fields ?? [],
    ...(data?.stored === undefined ? {} : { stored: data.stored }),
    ...(data?.confirm ? { confirm: true } : {}),
    ...(data?.locked ? { locked: true } : {}),
    ...(data?.second ? { second: true } : {}),
  }
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/json')
  await send(event, JSON.stringify(problem))
}

export default onError
