import {
  EQUATIONS,
  estimate,
  isFor,
  type Equation,
  type Estimate,
  type InputId,
  type KnownMeasures,
  type Sex,
} from '../core/equations'
import { splitWeight } from '../core/composition/masses'
import { columnNames, HeaderProblem, numberOf, quoted, SEXES } from '../exchange/header'
import { asFoldSite, asGirthSite, FOLDS, GIRTHS, type SiteId } from '../core/sites'

const NEEDED = ['id', 'sex', 'age_years', 'height_cm', 'weight_kg'] as const

/** Sites that were one before. */
const SPLIT_SITES = [
  ['triceps', 'triceps-kin'],
  ['biceps', 'biceps-kin'],
] as const

/** A column that carries one measure. */
interface Column {
  index: number
  input: InputId
  name: string
}

/** Where each thing stands in a row, and which equations these columns could ever feed. */
export interface RowReader {
  id: number
  sex: number
  columns: Column[]
  equations: Record<Sex, Equation[]>
}

function siteOf(name: string): SiteId | null {
  const [, kind, site] = /^(fold|girth)_(.+)_(?:mm|cm)$/.exec(name) ?? []
  if (!site) return null
  const id = site.replaceAll('_', '-')
  if (kind === 'fold') return name.endsWith('_mm') ? asFoldSite(id) : null
  if (!name.endsWith('_cm')) return null
  return asGirthSite(id) ?? asGirthSite(`${id}-girth`)
}

/** Every column name the estimator understands beyond the five needed ones. */
export function knownColumns(): string[] {
  const under = (id: string) => id.replaceAll('-', '_')
  return [
    ...Object.keys(FOLDS).map((id) => `fold_${under(id)}_mm`),
    ...Object.keys(GIRTHS).map((id) => `girth_${under(id)}_cm`),
  ]
}

function inputOf(name: string): InputId | null {
  if (name === 'age_years') return 'age'
  if (name === 'height_cm') return 'height'
  if (name === 'weight_kg') return 'weight'
  return siteOf(name)
}

/**
 * Reads the header row.
 * @throws HeaderProblem when a needed column is missing, a column is named twice or a fold or girth column is not known
 */
export function rowReader(header: readonly string[]): RowReader {
  const names = columnNames(header, NEEDED)
  const unknown = names.find((name) => /^(fold|girth)_/.test(name) && siteOf(name) === null)
  if (unknown) throw new HeaderProblem(`The header names a site nobody knows: ${unknown}.`)
  const columns = names.flatMap((name, index): Column[] => {
    const input = inputOf(name)
    return input ? [{ index, input, name }] : []
  })
  // A table that tells one triceps and one biceps feeds every equation with them, as it did before these sites were split.
  for (const [old, split] of SPLIT_SITES) {
    const own = columns.find(({ input }) => input === old)
    if (own && !columns.some(({ input }) => input === split)) columns.push({ ...own, input: split })
  }
  const given = new Set<InputId>(columns.map(({ input }) => input))
  const fed = (sex: Sex) => EQUATIONS.filter((one) => isFor(one, sex) && one.inputs.every((input) => given.has(input)))
  return {
    id: names.indexOf('id'),
    sex: names.indexOf('sex'),
    columns,
    equations: { female: fed('female'), male: fed('male') },
  }
}

function measuresOf(reader: RowReader, cells: readonly string[]): { known: KnownMeasures } | { reason: string } {
  const known: KnownMeasures = {}
  for (const { index, input, name } of reader.columns) {
    const text = (cells[index] ?? '').trim()
    if (text === '') continue
    const value = numberOf(text)
    if (value === null || !Number.isFinite(value)) return { reason: `${name} is not a number: ${text.slice(0, 40)}` }
    if (value < 0) return { reason: `${name} is negative` }
    known[input] = value
  }
  return { known }
}

function row(
  id: string,
  equation: string,
  status: string,
  figures: readonly (number | null)[],
  reason: string,
): string {
  const numbers = figures.map((figure) => (figure === null ? '' : String(figure)))
  return `${quoted(id)},${equation},${status},${numbers.join(',')},${quoted(reason)}\n`
}

const EMPTY = [null, null, null, null, null]

function said(id: string, result: Estimate, weightKg: number | undefined): string {
  const equation = result.equation.id
  switch (result.status) {
    case 'missing':
      return ''
    case 'refused':
      return row(id, equation, 'refused', EMPTY, result.reason)
    case 'ok':
    case 'caution': {
      const { percent, density, seePercent, cautions } = result
      const masses = weightKg !== undefined && weightKg > 0 ? splitWeight(weightKg, percent) : null
      const figures = [percent, density, masses?.fatKg ?? null, masses?.leanKg ?? null, seePercent]
      return row(id, equation, result.status, figures, cautions.map(({ sentence }) => sentence).join(' '))
    }
  }
}

/**
 * One person's row: a line for each equation of that sex whose inputs are all present, or one refused line with the
 * line number when the row itself cannot be read.
 */
export function answers(reader: RowReader, cells: readonly string[], line: number): string {
  const id = (cells[reader.id] ?? '').trim()
  const refuse = (reason: string) => row(id, '', 'refused', EMPTY, `line ${line}: ${reason}`)
  const sex = SEXES[(cells[reader.sex] ?? '').trim().toLowerCase()]
  if (!sex) return refuse(`unknown sex: ${(cells[reader.sex] ?? '').trim().slice(0, 40) || 'empty'}`)
  const measured = measuresOf(reader, cells)
  if ('reason' in measured) return refuse(measured.reason)
  const { known } = measured
  const settings = { person: { sex }, conversion: 'siri' }
  let text = ''
  for (const equation of reader.equations[sex]) text += said(id, estimate(equation, known, settings), known.weight)
  return text
}
