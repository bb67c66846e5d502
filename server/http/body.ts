import { getHeader, type H3Event } from 'h3'
import type { z } from 'zod'
import type { FieldProblem } from '../../shared/schemas/problem'
import { failure } from './failure'

/** Largest body any route reads, bytes. */
export const BODY_LIMIT = 1024 * 1024

/** Beyond this a refused body is not even read to its end. */
const DRAIN_LIMIT = 256 * 1024 * 1024

/** Reads a body whole. Throws 413 with the sentence when it is larger than `limit` bytes. */
export async function readBytes(event: H3Event, limit: number, sentence: string): Promise<Buffer> {
  const chunks: Buffer[] = []
  let size = 0
  if (Number(getHeader(event, 'content-length') ?? 0) > DRAIN_LIMIT) throw failure(413, sentence)
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > DRAIN_LIMIT) break
    // What is too large is read past without being kept: a sender cut off in the middle never sees the answer.
    if (size <= limit) chunks.push(chunk)
    else chunks.length = 0
  }
  if (size > limit) throw failure(413, sentence)
  return Buffer.concat(chunks)
}

async function readText(event: H3Event): Promise<string> {
  return (await readBytes(event, BODY_LIMIT, 'That is more than can be sent at once (1 MB).')).toString('utf8')
}

/** Sentences for what a schema has none of its own for. */
function sentenceFor(issue: z.core.$ZodRawIssue): string {
  if (issue.code === 'unrecognized_keys') return `This is not asked for here: ${issue.keys.join(', ')}.`
  return issue.input === undefined ? 'Something is missing here.' : 'This does not have the form it needs.'
}

function fieldProblems(error: z.ZodError): FieldProblem[] {
  return error.issues.map((issue) => ({ field: issue.path.join('.') || 'body', message: issue.message }))
}

/** Characters no text of ours can hold: the database takes no NUL, and half a pair of surrogates is no character. */
function isBroken(text: string): boolean {
  return text.includes('\0') || !text.isWellFormed()
}

/** Where a value holds text that is none, as paths of fields. */
function brokenFields(value: unknown, path: string[] = []): string[] {
  if (typeof value === 'string') return isBroken(value) ? [path.join('.')] : []
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([key, inner]) =>
    isBroken(key) ? [path.join('.')] : brokenFields(inner, [...path, key]),
  )
}

function refuseBroken(value: unknown): void {
  const message = 'This holds a character that is none: please type it anew.'
  const fields = brokenFields(value).map((field) => ({ field: field || 'body', message }))
  if (fields.length > 0) throw failure(422, message, fields.slice(0, 20))
}

/** Objects and lists within each other: the deepest body of ours has seven. */
const DEEPEST = 64

/** Whether JSON is nested deeper than that; told before it is parsed, because walking through it would end the call. */
function isTooDeep(text: string): boolean {
  let depth = 0
  let quoted = false
  for (let i = 0; i < text.length; i += 1) {
    const sign = text[i]
    if (quoted) {
      if (sign === '\\') i += 1
      else if (sign === '"') quoted = false
    } else if (sign === '"') quoted = true
    else if (sign === '{' || sign === '[') {
      depth += 1
      if (depth > DEEPEST) return true
    } else if (sign === '}' || sign === ']') depth -= 1
  }
  return false
}

/** Reads a JSON body through its schema. Throws a 4xx with a sentence and the fields it is about. */
export async function readJson<Schema extends z.ZodType>(event: H3Event, schema: Schema): Promise<z.output<Schema>> {
  if (!/^application\/json\s*(;|$)/i.test(getHeader(event, 'content-type') ?? '')) {
    throw failure(415, 'This address takes JSON (content-type application/json).')
  }
  const text = await readText(event)
  if (isTooDeep(text)) {
    const message = 'What was sent is nested too deeply.'
    throw failure(400, message, [{ field: 'body', message }])
  }
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    throw failure(400, 'What was sent could not be read (it is not JSON).', [
      { field: 'body', message: 'This is not JSON.' },
    ])
  }
  return parsed(schema, body)
}

/** Any value through its schema, with the same answer when it does not fit. */
export function parsed<Schema extends z.ZodType>(schema: Schema, value: unknown): z.output<Schema> {
  refuseBroken(value)
  const result = schema.safeParse(value, { error: sentenceFor })
  if (result.success) return result.data
  const fields = fieldProblems(result.error)
  throw failure(422, fields[0]?.message ?? 'Something does not fit.', fields)
}
