import { createError, type H3Error } from 'h3'
import type { FieldProblem } from '../../shared/schemas/problem'

/** An answer that something is wrong: a sentence for a person, and the fields it is about. */
export function failure(statusCode: number, message: string, fields: FieldProblem[] = []): H3Error {
  return createError({ statusCode, message, data: { fields } })
}

/** An answer that something else stands there, with what does. */
export function conflict(message: string, stored: unknown): H3Error {
  return createError({ statusCode: 409, message, data: { fields: [], stored } })
}
