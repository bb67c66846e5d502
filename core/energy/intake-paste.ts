import { dayOfWritten, pastedRows, toldOrder, writtenDate, type SlashOrder } from '../calendar'
import { INTAKE_RANGE } from './observed'

/** One line of a pasted log of intake, as it will be stored or with what is wrong with it. */
export interface IntakeLine {
  number: number
  text: string
  day: string | null
  kcal: number | null
  /** What is wrong, in a sentence: nothing is stored while an included line has one. */
  problem: string | null
  /** Said beside a line that holds nothing to store. */
  note: string | null
}

/** A pasted log. */
export interface PastedIntakes {
  lines: IntakeLine[]
  /** True when no line tells whether 3/4/2026 is in March or in April. */
  askOrder: boolean
}

const KJ_PER_KCAL = 4.184
/** A whole number, thousands apart by a comma, point, space or nothing; kcal or kJ after it. */
const WRITTEN = /^(\d{1,3}(?:[., ]\d{3})+|\d+)\s*(kcal|cal|kj)?$/i

/** Why so many kcal in a day are not taken; null: they are. */
export function intakeProblem(kcal: number): string | null {
  if (kcal < INTAKE_RANGE.low) return `Under ${INTAKE_RANGE.low} kcal in a day: is it the whole day?`
  return kcal > INTAKE_RANGE.high ? 'More than 10,000 kcal in a day: please check.' : null
}

/**
 * A day's intake as typed, kcal: "2,150", "2150 kcal", "9000 kJ".
 * @example parseIntake('9,000 kJ') // { kcal: 2151 }
 */
export function parseIntake(text: string): { kcal: number } | { problem: string } {
  const [, digits = '', unit = 'kcal'] = WRITTEN.exec(text.trim()) ?? []
  if (digits === '') return { problem: 'Please give a whole number of kcal, such as 2150.' }
  const number = Number(digits.replace(/[., ]/g, ''))
  const kcal = Math.round(unit.toLowerCase() === 'kj' ? number / KJ_PER_KCAL : number)
  const problem = intakeProblem(kcal)
  return problem ? { problem } : { kcal }
}

/** Reads a log pasted as two columns, day and kcal, line by line; dates as in a pasted diary. */
export function readIntakes(
  pasted: string,
  {
    today,
    order: chosen = null,
    taken = new Set(),
  }: { today: string; order?: SlashOrder | null; taken?: ReadonlySet<string> },
): PastedIntakes {
  const rows = pastedRows(pasted)
  const dates = rows.map(({ text }) => writtenDate(text))
  const told = toldOrder(dates.flatMap((date) => date ?? []))
  const order = told ?? chosen
  const seen = new Map<string, number>()
  const lines = rows.map(({ text, number }, i): IntakeLine => {
    const date = dates[i] ?? null
    const line: IntakeLine = { number, text, day: null, kcal: null, problem: null, note: null }
    if (!date) return { ...line, problem: 'No date found: write the day first, such as 2026-11-24 or 24.11.2026.' }
    if (date.slashed && order === null)
      return { ...line, problem: 'Is the day or the month first? Please choose above.' }
    const day = dayOfWritten(date, order)
    if (!day) return { ...line, problem: 'There is no such day.' }
    const eaten = text
      .slice(date.length)
      .replace(/^[\s,;:|]+/, '')
      .trim()
    if (eaten === '' || /^[-–—.]+$/.test(eaten)) return { ...line, day, note: 'Nothing logged on this day: left out.' }
    const parsed = parseIntake(eaten)
    if ('problem' in parsed) return { ...line, day, problem: parsed.problem }
    const kept = { ...line, day, kcal: parsed.kcal }
    if (day > today) return { ...kept, problem: 'This day is still to come.' }
    if (taken.has(day))
      return { ...kept, problem: 'This day is logged already: strike it first or leave this line out.' }
    const first = seen.get(day)
    if (first !== undefined) return { ...kept, problem: `Line ${first} is of the same day: a day has one intake.` }
    seen.set(day, number)
    return kept
  })
  return { lines, askOrder: told === null && dates.some((date) => date?.slashed) }
}
