import { BOUNDS } from '../units/bounds'
import { fixed } from '../units/round'
import { dayOfWritten, pastedRows, toldOrder, writtenDate, type SlashOrder, type WrittenDate } from '../calendar'
import { kgToMass, massToKg, parseWeight, type MassUnit } from '../units'

/** One line of a pasted diary, as it will be stored or with what is wrong with it. */
export interface DiaryLine {
  /** Number of the line in the paste, from 1. */
  number: number
  text: string
  day: string | null
  value: number | null
  unit: MassUnit
  /** What is wrong, in a sentence: nothing is stored while an included line has one. */
  problem: string | null
  /** Said beside a line that holds nothing to store. */
  note: string | null
}

/** A pasted diary: every line, and whether dates with slashes can be read two ways. */
export interface PastedDiary {
  lines: DiaryLine[]
  /** True when no line tells whether 3/4/2026 is in March or in April. */
  askOrder: boolean
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? NaN
}

/** Kilograms far from the others that would fit them as pounds, or the other way about. */
function unitProblem(line: DiaryLine, typicalKg: number): string | null {
  if (line.value === null) return null
  const kg = massToKg(line.value, line.unit)
  const other: MassUnit = line.unit === 'kg' ? 'lb' : 'kg'
  const meant = massToKg(line.value, other)
  const apart = Math.abs(Math.log(kg / typicalKg))
  if (apart < 0.35) return null
  return Math.abs(Math.log(meant / typicalKg)) < 0.15
    ? `Far from the other days: is ${line.value} in ${other}? Write ${line.value} ${other}.`
    : `Far from the other days (about ${fixed(kgToMass(typicalKg, line.unit), 1)} ${line.unit}): please check it.`
}

function readLine(text: string, number: number, date: WrittenDate | null, day: string | null, unit: MassUnit) {
  const line: DiaryLine = { number, text, day, value: null, unit, problem: null, note: null }
  if (!date) return { ...line, problem: 'No date found: write the day first, such as 2026-11-24 or 24.11.2026.' }
  if (!day) return { ...line, problem: 'There is no such day.' }
  const weight = text
    .slice(date.length)
    .replace(/^[\s,;:|]+/, '')
    .trim()
  if (weight === '' || /^[-–—.]+$/.test(weight)) return { ...line, note: 'No weight on this day: left out.' }
  const parsed = parseWeight(weight, unit)
  if (parsed.kind !== 'value') return { ...line, problem: parsed.sentence }
  return { ...line, value: parsed.value, unit: parsed.unit }
}

/** Settings a paste is read with. */
export interface PasteSettings {
  /** Unit of bare numbers. */
  unit: MassUnit
  /** ISO day after which a day is still to come. */
  today: string
  /** Chosen by the reader where slashes can be read two ways. */
  order?: SlashOrder | null
  /** Days that hold a weigh-in already. */
  taken?: ReadonlySet<string>
}

/**
 * Reads a diary pasted as two columns, day and weight, line by line: ISO, dotted, slashed and written-out dates; points
 * or decimal commas; kg, lb or stones. Nothing is guessed silently: what is doubtful carries a sentence.
 */
export function readDiary(pasted: string, settings: PasteSettings): PastedDiary {
  const { unit, today, taken = new Set() } = settings
  const rows = pastedRows(pasted)
  const dates = rows.map(({ text }) => writtenDate(text))
  const told = toldOrder(dates.flatMap((date) => date ?? []))
  const order = told ?? settings.order ?? null
  const askOrder = told === null && dates.some((date) => date?.slashed)
  const lines = rows.map(({ text, number }, i): DiaryLine => {
    const date = dates[i] ?? null
    const line = readLine(text, number, date, date && dayOfWritten(date, order), unit)
    if (!line.problem && date?.slashed && order === null) {
      return { ...line, problem: 'Is the day or the month first? Please choose above.' }
    }
    return line
  })
  const typicalKg = median(lines.flatMap((line) => (line.value === null ? [] : massToKg(line.value, line.unit))))
  const seen = new Map<string, number>()
  const checked = lines.map((line): DiaryLine => {
    if (line.problem || line.value === null || !line.day) return line
    const first = seen.get(line.day)
    if (first !== undefined) return { ...line, problem: `Line ${first} is of the same day: a day has one weigh-in.` }
    seen.set(line.day, line.number)
    if (line.day > today) return { ...line, problem: 'This day is still to come.' }
    if (line.day < BOUNDS.firstFactDay)
      return { ...line, problem: `That is before ${BOUNDS.firstYear}: please check the year.` }
    if (taken.has(line.day)) return { ...line, problem: 'This day holds a weigh-in already.' }
    return { ...line, problem: unitProblem(line, typicalKg) }
  })
  return { lines: checked, askOrder }
}
