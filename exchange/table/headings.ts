import { rangeOf } from '../../core/readings/slips/words'
import { isFold, SITES, type SiteId } from '../../core/sites'
import { lengthToCm } from '../../core/units'
import { textOf, type Cell } from './cells'
import { DERIVED, FACT_SPELLINGS, FACTS, SITE_SPELLINGS, type FactId } from './spellings'

export const COLUMN_UNITS = ['mm', 'cm', 'in', 'm', 'kg', 'lb', 'st'] as const
export type ColumnUnit = (typeof COLUMN_UNITS)[number]

/** What a column holds: a fact, a site, or nothing that is brought in. */
export type Means = FactId | SiteId | 'left-out'

/** A column as it is understood. */
export interface ColumnMeaning {
  /** Null: not known, somebody has to say. */
  means: Means | null
  /** Unit of its numbers; null: none is needed, or none is known yet. */
  unit: ColumnUnit | null
  /** Which reading of a site it holds, from 1. */
  trial: number
}

/** A heading taken apart. */
export interface Heading {
  /** In small letters, without unit, trial and signs: what is remembered. */
  bare: string
  unit: ColumnUnit | null
  trial: number | null
  kind: 'fold' | 'girth' | null
  mean: boolean
}

const UNIT_WORDS: Readonly<Record<string, ColumnUnit>> = {
  mm: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  cm: 'cm',
  centimeter: 'cm',
  centimeters: 'cm',
  centimetre: 'cm',
  centimetres: 'cm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  ft: 'in',
  feet: 'in',
  m: 'm',
  meter: 'm',
  metre: 'm',
  kg: 'kg',
  kgs: 'kg',
  kilo: 'kg',
  kilos: 'kg',
  kilogram: 'kg',
  kilograms: 'kg',
  lb: 'lb',
  lbs: 'lb',
  pound: 'lb',
  pounds: 'lb',
  '#lb': 'lb',
  st: 'st',
  stone: 'st',
}
const FOLD_WORDS = /\b(skin ?folds?|folds?|sf|skf|skinf)\b/
const GIRTH_WORDS = /\b(girths?|circumferences?|circ|circum|cir|tape)\b/
const MEAN_WORDS = /\b(mean|average|avg|median|final)\b/
const TRIAL = /(?:\b(?:trial|reading|measure|rep|take|round|t|r|m)\s*)?\b([1-6])$|(?:^| )([a-f])$/

/** Letters and figures alone. */
const plain = (words: string) =>
  words
    .replace(/[%()[\]{}#:;.,/\\_*"'-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/**
 * A heading taken apart.
 * @example readHeading('Triceps SF #2 (mm)') // { bare: 'triceps', unit: 'mm', trial: 2, kind: 'fold', mean: false }
 */
export function readHeading(text: string): Heading {
  let words = text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f\ufeff]/g, '')
  const whole = plain(words)
  if (Object.values(FACT_SPELLINGS).some((all) => all.includes(whole)))
    return { bare: whole, unit: null, trial: null, kind: null, mean: false }
  let unit: ColumnUnit | null = null
  // A unit stands in brackets, after a comma or a slash, or last.
  words = words.replace(
    /[([{]\s*([^)\]}]*?)\s*[)\]}]|[,/]\s*([a-z"]+)\s*$/g,
    (all, bracketed?: string, after?: string) => {
      const word = UNIT_WORDS[(bracketed ?? after ?? '').replace(/\.$/, '')]
      if (word) unit ??= word
      return word ? ' ' : all
    },
  )
  words = plain(words).replace(/([a-z])([1-6])$/, '$1 $2')
  // "in" can be a word; a unit it is only at the end.
  const last = /(?:^| )([a-z]+)$/.exec(words)?.[1] ?? ''
  if (!unit && UNIT_WORDS[last] && words !== last) {
    unit = UNIT_WORDS[last] ?? null
    words = words.slice(0, -last.length).trim()
  }
  const kind = FOLD_WORDS.test(words) ? 'fold' : GIRTH_WORDS.test(words) ? 'girth' : null
  const mean = MEAN_WORDS.test(words)
  let bare = words
    .replace(FOLD_WORDS, ' ')
    .replace(GIRTH_WORDS, ' ')
    .replace(MEAN_WORDS, ' ')
    .replace(/\b(left|right|rt|lt)\b/, ' ')
    .replace(/\s+/g, ' ')
    .trim()
  // "abdominal 5 cm" is a site of its own, not a fifth reading.
  const isOwn = Object.values(SITE_SPELLINGS).some((all) => all.includes(unit === 'cm' ? `${bare} cm` : bare))
  if (isOwn && unit === 'cm' && /\d$/.test(bare))
    return { bare: `${bare} cm`, unit: null, trial: null, kind: 'fold', mean }
  const found = isOwn ? null : TRIAL.exec(bare)
  const trial = found ? (found[1] ? Number(found[1]) : (found[2]?.charCodeAt(0) ?? 96) - 96) : null
  if (found && found.index > 0) bare = bare.slice(0, found.index).trim()
  return { bare: bare || words, unit, trial: found && found.index > 0 ? trial : null, kind, mean }
}

function namedBy({ bare }: Heading): { folds: SiteId[]; girths: SiteId[] } {
  const named = (Object.keys(SITES) as SiteId[]).filter((id) => SITE_SPELLINGS[id].includes(bare))
  return { folds: named.filter(isFold), girths: named.filter((id) => !isFold(id)) }
}

/** Whether a heading can only be of a fold. */
function isSurelyFold(heading: Heading): boolean {
  const { folds, girths } = namedBy(heading)
  return folds.length > 0 && (heading.kind === 'fold' || heading.unit === 'mm' || girths.length === 0)
}

/** The site of a heading: by its words, and where a fold and a girth share them by unit, kind, size or company. */
function siteOf(heading: Heading, typical: number | null, amongFolds: boolean): SiteId | null {
  const { unit, kind } = heading
  const { folds, girths } = namedBy(heading)
  const [fold, girth] = [folds[0] ?? null, girths[0] ?? null]
  if (kind === 'fold' || unit === 'mm') return fold
  if (kind === 'girth' || unit === 'cm' || unit === 'in') return girth
  if (!fold || !girth) return fold ?? girth
  // Without a word about it: no fold of these is over 45 mm as a rule, and below that a girth could be in inches.
  if (typical !== null && typical > 45) return girth
  return amongFolds ? fold : null
}

function median(numbers: number[]): number | null {
  return numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? null
}

/** Unit a column's numbers are in where its heading says none: by what a body can have. Null where both could be. */
function unitBySize(means: Means, typical: number | null): ColumnUnit | null {
  if (typical === null) return null
  if (means === 'height') return typical < 3 ? 'm' : typical < 90 ? 'in' : 'cm'
  if (means === 'weight') return typical > 160 ? 'lb' : typical < 60 ? 'kg' : null
  if (!(means in SITES)) return null
  if (isFold(means as SiteId)) return 'mm'
  const { low, high } = rangeOf(means as SiteId)
  return typical < low ? 'in' : lengthToCm(typical, 'in') > high ? 'cm' : null
}

/** What this studio has said before of headings by these words. */
export type Remembered = ReadonlyMap<string, { means: Means; unit: ColumnUnit | null }>

/**
 * What the columns of a table hold, as far as their headings and numbers tell.
 * @param samples some cells of each column
 * @param remembered what somebody has said of such headings before; it comes first
 */
export function recognise(
  headings: readonly string[],
  samples: readonly (readonly Cell[])[],
  remembered: Remembered = new Map(),
): ColumnMeaning[] {
  const taken = new Map<string, number>()
  const read = headings.map(readHeading)
  const amongFolds = read.some(isSurelyFold)
  const withReadings = new Set(read.flatMap(({ bare, mean }) => (mean ? [] : [bare])))
  return read.map((heading, i) => {
    const numbers = (samples[i] ?? [])
      .map((cell) =>
        Number(
          textOf(cell)
            .replace(',', '.')
            .replace(/[^\d.].*$/, ''),
        ),
      )
      .filter((number) => number > 0)
    const typical = median(numbers)
    const known = remembered.get(heading.bare)
    const fact = (Object.keys(FACTS) as FactId[]).find((id) => FACT_SPELLINGS[id].includes(heading.bare))
    const means: Means | null =
      known?.means ??
      (heading.bare === '' && (samples[i] ?? []).every((cell) => textOf(cell) === '') ? 'left-out' : null) ??
      (fact && !heading.kind ? fact : null) ??
      siteOf(heading, typical, amongFolds) ??
      (DERIVED.includes(heading.bare) || /^(sum|total) of/.test(heading.bare) ? 'left-out' : null)
    if (means === null || means === 'left-out') return { means, unit: null, trial: 1 }
    const before = taken.get(means) ?? 0
    const repeats = means in SITES || means === 'weight' || means === 'height'
    // A mean beside its readings follows from them; alone it is the reading.
    if ((heading.mean && withReadings.has(heading.bare)) || (before > 0 && !repeats))
      return { means: 'left-out', unit: null, trial: 1 }
    const trial = heading.trial ?? before + 1
    taken.set(means, Math.max(before, trial))
    const unit = repeats ? (heading.unit ?? known?.unit ?? unitBySize(means, typical)) : null
    return { means, unit, trial }
  })
}
