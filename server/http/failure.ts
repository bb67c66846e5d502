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

/** An answer that the device is locked: nothing of it is done until somebody opens it. */
export function locked(): H3Error {
  return createError({
    statusCode: 423,
    message: 'This device is locked. Please open it with your PIN.',
    data: { fields: [], locked: true },
  })
}

/** An answer that the studio wants a second proof first. */
export function withoutSecond(): H3Error {
  return createError({
    statusCode: 403,
    message:
      'Your studio asks for a code or a passkey beside the password. Please set one up first, under Studio, Account.',
    data: { fields: [], second: true },
  })
}

/** An answer that somebody has to prove once more who they are before this is done. */
export function unconfirmed(): H3Error {
  return createError({
    statusCode: 403,
    message: 'Please confirm that it is you before this is done.',
    data: { fields: [], confirm: true },
  })
}
