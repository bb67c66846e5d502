import { send, setResponseHeader, setResponseStatus } from 'h3'
import type { NitroErrorHandler } from 'nitropack/types'
import type { FieldProblem, Problem } from '../../shared/schemas/problem'

const SENTENCES: Record<number, string> = {
  404: 'There is nothing at this address.',
  405: 'This address does not take that kind of request.',
  429: 'Too many requests from here. Please wait a few minutes.',
}

function sentence(status: number, message: string): string {
  if (status >= 500) return 'Something went wrong on our side. What was stored before is safe.'
  return SENTENCES[status] && !message.includes(' ') ? SENTENCES[status] : message
}

/** Every error leaves as one shape, without stack or internals. */
const onError: NitroErrorHandler = async (error, event) => {
  const status = error.statusCode || 500
  if (status >= 500) console.error(error)
  const data = error.data as { fields?: FieldProblem[] } | undefined
  const known = SENTENCES[status]
  const message = error.message === error.statusMessage && known ? known : sentence(status, error.message)
  const problem: Problem = { message, fields: data?.fields ?? [] }
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/json')
  await send(event, JSON.stringify(problem))
}

export default onError
