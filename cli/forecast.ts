import { dynamicModel, RESTING } from '../core/energy'
import { columnNames, numberOf, quoted, SEXES } from '../exchange/header'
import { runStreamed } from './streamed'

const NEEDED = [
  'id',
  'sex',
  'age_years',
  'height_cm',
  'weight_kg',
  'fat_kg',
  'activity',
  'intake_change_kcal',
  'days',
] as const
type Column = (typeof NEEDED)[number]
type Places = Record<Column, number>

/** Bounds of what a row may hold. */
const BOUNDS: Readonly<Record<Exclude<Column, 'id' | 'sex'>, readonly [low: number, high: number]>> = {
  age_years: [2, 120],
  height_cm: [50, 260],
  weight_kg: [10, 400],
  fat_kg: [0.5, 300],
  activity: [1, 3],
  intake_change_kcal: [-10_000, 10_000],
  days: [0, 36_500],
}

/** Days besides every seventh that are asked for: ends of years. */
const YEARS = [365, 730, 1095]

/** Days a forecast is written for: 0, every seventh, ends of years, and the last. */
function daysOf(last: number): number[] {
  const days = new Set([last, ...YEARS.filter((day) => day <= last)])
  for (let day = 0; day <= last; day += 7) days.add(day)
  return [...days].sort((a, b) => a - b)
}

/** The numbers of a row, or why it cannot be read. */
function read(places: Places, cells: readonly string[]): Record<keyof typeof BOUNDS, number> | string {
  const found: Partial<Record<keyof typeof BOUNDS, number>> = {}
  for (const [name, [low, high]] of Object.entries(BOUNDS) as [keyof typeof BOUNDS, readonly [number, number]][]) {
    const text = (cells[places[name]] ?? '').trim()
    const value = numberOf(text)
    if (value === null) return `${name} is not a number: ${text.slice(0, 40) || 'empty'}`
    if (value < low || value > high) return `${name} has to lie between ${low} and ${high}: ${text.slice(0, 40)}`
    found[name] = value
  }
  const numbers = found as Record<keyof typeof BOUNDS, number>
  if (numbers.fat_kg >= numbers.weight_kg) return 'fat_kg is no less than weight_kg'
  if (!Number.isInteger(numbers.days)) return 'days is not a whole number'
  return numbers
}

const mifflin = RESTING.find(({ id }) => id === 'mifflin-st-jeor')

/** The course of one person, a line a day asked for; a row that cannot be read is told to standard error. */
function answer(places: Places, cells: readonly string[], line: number): string {
  const refuse = (reason: string) => {
    process.stderr.write(`line ${line}: ${reason}\n`)
    return ''
  }
  const sex = SEXES[(cells[places.sex] ?? '').trim().toLowerCase()]
  if (!sex) return refuse(`unknown sex: ${(cells[places.sex] ?? '').trim().slice(0, 40) || 'empty'}`)
  const row = read(places, cells)
  if (typeof row === 'string') return refuse(row)
  const { age_years: ageYears, height_cm: heightCm, weight_kg: weightKg, fat_kg: fatKg, activity } = row
  const restingKcal = mifflin?.kcal({ sex, ageYears, heightCm, weightKg, leanKg: null }) ?? 0
  if (!(restingKcal > 0)) return refuse('resting expenditure is not above zero for this body')
  const model = dynamicModel({ fatKg, leanKg: weightKg - fatKg, restingKcal, activity })
  const days = daysOf(row.days)
  const course = model.course(() => row.intake_change_kcal, days)
  if (course.length < days.length) refuse(`fat or lean would run out before day ${days[course.length]}`)
  const id = quoted((cells[places.id] ?? '').trim())
  return course
    .map(
      (one) =>
        `${id},${one.day},${one.fatKg},${one.leanKg},${one.weightKg},${one.glycogenKg},${one.fluidKg},${one.scaleKg}\n`,
    )
    .join('')
}

runStreamed({
  header: 'id,day,fat_kg,lean_kg,weight_kg,glycogen_kg,fluid_kg,scale_kg',
  readerOf: (header) => {
    const names = columnNames(header, NEEDED)
    return Object.fromEntries(NEEDED.map((name) => [name, names.indexOf(name)])) as Places
  },
  answer,
})
