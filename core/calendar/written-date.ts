import { dayExists } from './day'

/** Which part of 3/4/2026 is the day. */
export type SlashOrder = 'day-first' | 'month-first'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

const ISO = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})/
const DOTTED = /^(\d{1,2})\.(\d{1,2})\.(\d{4}|\d{2})/
const SLASHED = /^(\d{1,2})[/-](\d{1,2})[/-](\d{4}|\d{2})/
const NAMED = /^(\d{1,2})\.?\s+([a-z]{3,9})\.?,?\s+(\d{4})/i
const NAMED_FIRST = /^([a-z]{3,9})\.?\s+(\d{1,2}),?\s+(\d{4})/i

/** A date as somebody wrote it at the beginning of a line. */
export interface WrittenDate {
  length: number
  /** Year, month, day; for slashes first and second as written. */
  parts: [number, number, number]
  slashed: boolean
}

function fullYear(text: string): number {
  return text.length === 2 ? 2000 + Number(text) : Number(text)
}

function month(name: string): number {
  return MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1
}

/** The date a line begins with: ISO, dotted, slashed or written out; null: none. */
export function writtenDate(text: string): WrittenDate | null {
  const found = (match: RegExpExecArray | null, parts: (m: string[]) => [number, number, number], slashed = false) =>
    match ? { length: match[0].length, parts: parts([...match]), slashed } : null
  return (
    found(ISO.exec(text), (m) => [Number(m[1]), Number(m[2]), Number(m[3])]) ??
    found(DOTTED.exec(text), (m) => [fullYear(m[3] ?? ''), Number(m[2]), Number(m[1])]) ??
    found(SLASHED.exec(text), (m) => [fullYear(m[3] ?? ''), Number(m[1]), Number(m[2])], true) ??
    found(NAMED.exec(text), (m) => [Number(m[3]), month(m[2] ?? ''), Number(m[1])]) ??
    found(NAMED_FIRST.exec(text), (m) => [Number(m[3]), month(m[1] ?? ''), Number(m[2])])
  )
}

/** ISO day of a date that exists, else null. */
function isoDay(year: number, monthOfYear: number, day: number): string | null {
  const two = (part: number) => String(part).padStart(2, '0')
  const text = `${year}-${two(monthOfYear)}-${two(day)}`
  return dayExists(text) ? text : null
}

/** The order slashes are written in, as far as a paste tells: a part above 12 is a day. */
export function toldOrder(dates: readonly WrittenDate[]): SlashOrder | null {
  const slashed = dates.filter(({ slashed: is }) => is)
  if (slashed.some(({ parts }) => parts[1] > 12)) return 'day-first'
  return slashed.some(({ parts }) => parts[2] > 12) ? 'month-first' : null
}

/** ISO day of a written date; null where there is no such day. */
export function dayOfWritten({ parts, slashed }: WrittenDate, order: SlashOrder | null): string | null {
  const [year, first, second] = parts
  if (!slashed) return isoDay(year, first, second)
  return order === 'month-first' ? isoDay(year, first, second) : isoDay(year, second, first)
}

/** Lines of something pasted that hold anything, with their numbers; a first line without a digit is a heading. */
export function pastedRows(pasted: string): { text: string; number: number }[] {
  return pasted
    .split(/\r?\n/)
    .map((text, i) => ({ text: text.replace(/["\u00a0]/g, ' ').trim(), number: i + 1 }))
    .filter(({ text, number }) => text !== '' && !(number === 1 && !/\d/.test(text)))
}
