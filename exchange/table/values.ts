import { rangeOf, unitOf } from '../../core/readings/slips/words'
import type { MeasureId } from '../../core/readings'
import { lengthToCm, massToKg, parseLength, parseMass } from '../../core/units'
import type { Cell } from './cells'
import { textOf } from './cells'
import type { ColumnUnit } from './headings'

/** A value with its unit, or what is wrong with the cell. */
export type ReadValue = { value: number; unit: 'mm' | 'cm' | 'in' | 'kg' | 'lb' } | { wrong: string }

const FOLD = /^(\d{1,3}(?:[.,]\d{1,3})?)\s*(?:mm)?$/i

function asWritten(measure: MeasureId, text: string, unit: ColumnUnit): ReadValue {
  const kind = unitOf(measure)
  if (kind === 'mm') {
    const digits = FOLD.exec(text)?.[1]
    return digits ? { value: Number(digits.replace(',', '.')), unit: 'mm' } : { wrong: `“${text}” is no fold in mm.` }
  }
  // A comma with three digits after it is no thousands mark in a body's numbers.
  const written = text.replace(/(\d),(\d)/, '$1.$2')
  const read =
    kind === 'kg'
      ? parseMass(unit === 'st' && /^[\d.]+$/.test(written) ? `${written} st` : written, unit === 'kg' ? 'kg' : 'lb')
      : parseLength(unit === 'm' && /^[\d.]+$/.test(written) ? `${written} m` : written, unit === 'in' ? 'in' : 'cm')
  if (read.kind === 'value') return { value: read.value, unit: read.unit }
  return { wrong: read.kind === 'ask' ? read.sentence : `“${text}”: ${read.sentence}` }
}

/** Digits a converted number keeps: more than any instrument shows, and no dust of the conversion. */
const tidy = (value: number) => Number(value.toFixed(4))

/**
 * A cell of a site, a weight or a height as a value within what a body can have; null for an empty one.
 * @example readValue('waist', '34 3/4', 'in') // { value: 34.75, unit: 'in' }
 */
export function readValue(measure: MeasureId, cell: Cell | undefined, unit: ColumnUnit): ReadValue | null {
  const text = textOf(cell).slice(0, 80)
  if (text === '' || text === '-' || text === '–') return null
  if (typeof cell === 'object' && cell !== null) return { wrong: `“${text}” is a date, and no ${measure}.` }
  const read = asWritten(measure, text, unit)
  if ('wrong' in read) return read
  const own = unitOf(measure)
  const inOwn =
    read.unit === 'in' ? lengthToCm(read.value, 'in') : read.unit === 'lb' ? massToKg(read.value, 'lb') : read.value
  const { low, high } = rangeOf(measure)
  if (!(inOwn >= low && inOwn <= high))
    return { wrong: `${text} is outside of what this can be: ${low} to ${high} ${own}.` }
  return { value: tidy(read.value), unit: read.unit }
}
