import { Z_95 } from '../error/interval'
import { quantileOf } from '../error/monte-carlo'
import type { Change } from '../following'
import { seededRandom } from '../simulate/random'
import { formatNumber } from '../units/format'

/** Forbes' constant: lean follows fat as 10.4 kg times its logarithm. */
const FORBES_KG = 10.4

/** Which part of a change of weight was fat, with its 95 % interval, beside what bodies of this fatness do. Shares. */
export interface Split {
  share: number
  low: number
  high: number
  /** Forbes' expectation for this fat mass and this change. */
  expected: number
  /** Lost lean faster, or slower, than bodies of this fatness do, beyond error. */
  against: 'leaner' | 'faster-lean' | null
}

/**
 * Part of a change of weight that is fat in bodies of a fatness (Forbes 1987, Hum Nutr: lean = 10.4 ln fat + a constant;
 * recalled).
 * @param fatKg at the start
 * @param weightChange kg, other than 0
 * @example forbesShare(30, -5) // 0.730
 */
export function forbesShare(fatKg: number, weightChange: number): number {
  const changeTo = (fat: number) => fat - fatKg + FORBES_KG * Math.log(fat / fatKg)
  let [low, high] = [1e-3, fatKg + Math.abs(weightChange)]
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2
    if (changeTo(middle) < weightChange) low = middle
    else high = middle
  }
  return ((low + high) / 2 - fatKg) / weightChange
}

const DRAWS = 4000
/** The errors drawn, fat's and weight's in turn: the same for every split, so that a dragged jaw draws none. */
let drawn: Float64Array | undefined

function normals(): Float64Array {
  const { normal } = seededRandom(104)
  return Float64Array.from({ length: 2 * DRAWS }, normal)
}

/**
 * The split of a change of weight that is real: fat's part of it, by simulating both with their errors.
 * @param fatKg fat at the start
 * @returns null where the change of weight is not real
 */
export function splitOf(
  fat: Pick<Change, 'change' | 'low' | 'high'>,
  weight: Pick<Change, 'change' | 'low' | 'high' | 'verdict'>,
  fatKg: number,
): Split | null {
  if (weight.verdict !== 'real' || weight.change === 0) return null
  const sdOf = ({ low, high }: { low: number; high: number }) => (high - low) / (2 * Z_95)
  const [fatSd, weightSd] = [sdOf(fat), sdOf(weight)]
  const errors = (drawn ??= normals())
  const shares = new Float64Array(DRAWS)
  for (let i = 0; i < DRAWS; i += 1)
    shares[i] =
      (fat.change + fatSd * (errors[2 * i] as number)) / (weight.change + weightSd * (errors[2 * i + 1] as number))
  const [low, high] = [quantileOf(shares, 0.025), quantileOf(shares, 0.975)]
  const expected = forbesShare(fatKg, weight.change)
  const lost = weight.change < 0
  const against = !lost ? null : high < expected ? 'faster-lean' : low > expected ? 'leaner' : null
  return { share: fat.change / weight.change, low, high, expected, against }
}

/** A split in words; shares as percent. */
export function splitSaid({ share, low, high, expected, against }: Split, lost: boolean): string {
  const percent = (value: number) => `${formatNumber(100 * value, 0)} %`
  const said = `Of the weight ${lost ? 'lost' : 'gained'} ${percent(share)} was fat (${percent(low)} to ${percent(high)}); bodies of this fatness: about ${percent(expected)}.`
  if (against === 'faster-lean') return `${said} Losing lean mass or water faster than bodies of this fatness do.`
  return against === 'leaner' ? `${said} Lean mass or water is kept better than bodies of this fatness do.` : said
}
