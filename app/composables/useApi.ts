import { FetchError } from 'ofetch'
import { PasskeyNotGiven } from '~/passkey-support'
import type { Problem } from '#shared/schemas/problem'

/** What the server said was wrong, or one plain sentence when it could not be reached. */
export function problemOf(error: unknown): Problem & { status: number } {
  if (error instanceof FetchError && error.status) {
    const body = error.data as Partial<Problem> | undefined
    return {
      status: error.status,
      message: body?.message ?? 'Something went wrong. Please try again.',
      fields: body?.fields ?? [],
      ...(body?.stored === undefined ? {} : { stored: body.stored }),
    }
  }
  if (error instanceof PasskeyNotGiven) return { status: 422, message: error.message, fields: [] }
  return { status: 0, message: 'The server cannot be reached. Please try again in a moment.', fields: [] }
}
