/** Kinds of calipers, from the surest to the least sure (common practice). */
export const CALIPER_KINDS = ['spring', 'digital', 'plastic-click', 'plastic', 'ruler'] as const
export type CaliperKind = (typeof CALIPER_KINDS)[number]

/** What is said of each kind (common practice). */
export const CALIPER_KIND_FACTS: Readonly<Record<CaliperKind, { name: string; about: string }>> = {
  spring: { name: 'Metal, sprung', about: 'Its spring presses alike at every opening: 10 g/mm², checked yearly.' },
  digital: {
    name: 'Digital, sprung',
    about: 'As a sprung one, read from a display: the pressure is checked all the same.',
  },
  'plastic-click': {
    name: 'Plastic, clicks',
    about: 'The click says when it presses enough, which takes away the error of the cheapest kind.',
  },
  plastic: { name: 'Plastic, by the thumb', about: 'Presses as hard as the thumb does: the same thumb, every time.' },
  ruler: { name: 'Ruler or tape, no caliper', about: 'Worse than any caliper: no pressure is held at all.' },
}

/** A block's step as it is and as the caliper read it, mm. */
export interface BlockStep {
  blockMm: number
  readMm: number
}

/** What a caliper shows of a fold: offset + gain x what is there. */
export interface Correction {
  offsetMm: number
  gain: number
}

/** What a block's steps say about a caliper. */
export interface BlockFinding {
  /** By step: read less block, mm. */
  deviations: { blockMm: number; offMm: number }[]
  /** The largest deviation, with its sign, mm. */
  worstMm: number
  /** The line through the steps, and how far they lie off it at most, mm. */
  fit: Correction & { restMm: number }
  /** Worth correcting: off by more than half a millimetre somewhere, and a line takes most of that away. */
  correction: Correction | null
  /** Off by more than a line explains: it has to be adjusted. */
  adjust: boolean
}

/** Usual steps of a block, mm. */
export const BLOCK_STEPS_MM = [0, 10, 20, 30, 40] as const
/** A deviation that is warned of, mm (common practice). */
export const OFF_MM = 0.5

/** Pressure of the jaws that passes, g/mm² (common practice: 10, within a tenth). */
export const PRESSURE_RANGE = { low: 9, high: 11 } as const

/** What is wrong with a caliper by its last check; null: nothing, or never checked. */
export type CaliperFault = 'off' | 'pressure' | null

/**
 * Whether a caliper passed its last check: within half a millimetre of the block, or corrected for it since, and pressed
 * with 9 to 11 g/mm² where that was measured.
 */
export function faultOf({
  deviationMm,
  pressure,
  corrected: isCorrected,
}: {
  deviationMm: number | null
  pressure: number | null
  corrected: boolean
}): CaliperFault {
  if (pressure !== null && (pressure < PRESSURE_RANGE.low || pressure > PRESSURE_RANGE.high)) return 'pressure'
  return Math.abs(deviationMm ?? 0) > OFF_MM && !isCorrected ? 'off' : null
}

/** Each in a sentence. */
export const FAULT_WORDS: Readonly<Record<Exclude<CaliperFault, null>, string>> = {
  off: 'This caliper was more than 0.5 mm off at its last check: have it adjusted before relying on it.',
  pressure: `This caliper’s jaws did not press with ${PRESSURE_RANGE.low} to ${PRESSURE_RANGE.high} g/mm² at its last check: have its spring put right before relying on it.`,
}

/**
 * Reads a check against a block of known steps: least squares of read on block, without a slope from one step alone.
 * @param steps at least one
 * @returns null without steps
 * @example readBlock([{ blockMm: 0, readMm: 0.8 }, { blockMm: 20, readMm: 20.8 }])?.correction // { offsetMm: 0.8, gain: 1 }
 */
export function readBlock(steps: readonly BlockStep[]): BlockFinding | null {
  if (steps.length === 0) return null
  const deviations = steps.map(({ blockMm, readMm }) => ({ blockMm, offMm: readMm - blockMm }))
  const worstMm = deviations.reduce((worst, { offMm }) => (Math.abs(offMm) > Math.abs(worst) ? offMm : worst), 0)
  const count = steps.length
  const meanBlock = steps.reduce((sum, { blockMm }) => sum + blockMm, 0) / count
  const meanRead = steps.reduce((sum, { readMm }) => sum + readMm, 0) / count
  const spread = steps.reduce((sum, { blockMm }) => sum + (blockMm - meanBlock) ** 2, 0)
  const together = steps.reduce((sum, { blockMm, readMm }) => sum + (blockMm - meanBlock) * (readMm - meanRead), 0)
  const gain = spread > 0 ? together / spread : 1
  const offsetMm = meanRead - gain * meanBlock
  const restMm = Math.max(...steps.map(({ blockMm, readMm }) => Math.abs(readMm - offsetMm - gain * blockMm)))
  const off = Math.abs(worstMm) > OFF_MM
  const helps = restMm <= OFF_MM && gain >= 0.7 && gain <= 1.3 && Math.abs(offsetMm) <= 10
  return {
    deviations,
    worstMm,
    fit: { offsetMm, gain, restMm },
    correction: off && helps ? { offsetMm, gain } : null,
    adjust: off && !helps,
  }
}

/**
 * A fold as it is, from what a caliper showed of it, mm.
 * @example corrected(20.8, { offsetMm: 0.8, gain: 1 }) // 20
 */
export function corrected(shownMm: number, { offsetMm, gain }: Correction): number {
  return (shownMm - offsetMm) / gain
}
