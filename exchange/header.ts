import type { Sex } from '../core/equations'

/** The header does not name what is needed. */
export class HeaderProblem extends Error {}

/**
 * Names of the columns, in small letters.
 * @throws HeaderProblem when a needed one is missing or one is named twice
 */
export function columnNames(header: readonly string[], needed: readonly string[]): string[] {
  const names = header.map((name) =>
    name
      .replace(/^\uFEFF/, '')
      .trim()
      .toLowerCase(),
  )
  const missing = needed.filter((name) => !names.includes(name))
  if (missing.length > 0) throw new HeaderProblem(`Missing column in the header: ${missing.join(', ')}.`)
  const twice = names.find((name, i) => name !== '' && names.indexOf(name) !== i)
  if (twice) throw new HeaderProblem(`The header names ${twice} twice.`)
  return names
}

/** How a sex may be written. */
export const SEXES: Readonly<Record<string, Sex>> = {
  f: 'female',
  female: 'female',
  woman: 'female',
  m: 'male',
  male: 'male',
  man: 'male',
}

/** A number as written, or null for anything else. */
export function numberOf(text: string): number | null {
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text) ? Number(text) : null
}

/** A cell of CSV, quoted where it must be. */
export function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}
