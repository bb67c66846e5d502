import { FOLD_RANGE_MM } from '../sites'

/** A typed fold: a value, or the sentence that stands beside the entry. */
export type FoldEntry = { ok: true; mm: number } | { ok: false; sentence: string }

/** Reads a fold as typed on the pad: millimetres, point or comma, at most one decimal, within what a fold can be. */
export function parseFold(text: string): FoldEntry {
  const { low, high } = FOLD_RANGE_MM
  const written = text.trim().replace(',', '.')
  if (!/^\d*\.?\d*$/.test(written) || !/\d/.test(written)) {
    return { ok: false, sentence: 'Please type the fold in millimetres, such as 12.5.' }
  }
  const mm = Number(written)
  if (/\.\d\d/.test(written)) return { ok: false, sentence: 'One decimal is enough: read to the half millimetre.' }
  if (mm > high && mm / 10 >= low && mm / 10 <= high) {
    return { ok: false, sentence: `A fold lies between ${low} and ${high} mm. Did you mean ${mm / 10}?` }
  }
  if (mm < low || mm > high) return { ok: false, sentence: `A fold lies between ${low} and ${high} mm.` }
  return { ok: true, mm }
}
