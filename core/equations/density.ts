import type { AgeRange, Sex } from './equation'

/** Two-component conversion of body density D (g/mL) to percent fat: a / D - b. */
export interface DensityConversion {
  id: string
  label: string
  a: number
  b: number
  source: string
  /** For whom the constants were made; null: everybody. */
  sex: Sex | null
  ages: AgeRange | null
  /** The population as the source names it; null: everybody. */
  group: string | null
}

const HEYWARD = 'Heyward & Stolarczyk 1996'

function specific(
  id: string,
  group: string,
  sex: Sex | null,
  [low, high]: [number, number],
  [a, b]: [number, number],
): [string, DensityConversion] {
  return [
    id,
    { id, label: `${group}, ${low} to ${high} years`, a, b, source: HEYWARD, sex, ages: { low, high }, group },
  ]
}

const everybody = { sex: null, ages: null, group: null } as const

const SIRI: DensityConversion = { id: 'siri', label: 'Siri', a: 495, b: 450, source: 'Siri 1961', ...everybody }

/** Conversions a coach can choose; the choice is kept on the client and shown. Constants recalled, not re-read. */
export const CONVERSIONS: Readonly<Record<string, DensityConversion>> = {
  siri: SIRI,
  brozek: { id: 'brozek', label: 'Brozek', a: 457, b: 414.2, source: 'Brozek et al. 1963', ...everybody },
  ...Object.fromEntries([
    specific('black-men', 'Black men', 'male', [18, 32], [437, 393]),
    specific('black-women', 'Black women', 'female', [24, 79], [485, 439]),
    specific('hispanic-women', 'Hispanic women', 'female', [20, 40], [487, 441]),
    specific('american-indian-women', 'American Indian women', 'female', [18, 60], [481, 434]),
    specific('japanese-men', 'Japanese men', 'male', [18, 48], [497, 452]),
    specific('japanese-men-older', 'Japanese men', 'male', [61, 78], [487, 441]),
    specific('japanese-women', 'Japanese women', 'female', [18, 48], [476, 428]),
    specific('japanese-women-older', 'Japanese women', 'female', [61, 78], [495, 450]),
    specific('white-men-young', 'White men', 'male', [17, 19], [499, 455]),
    specific('white-men', 'White men', 'male', [20, 80], [495, 450]),
    specific('white-women-young', 'White women', 'female', [17, 19], [505, 462]),
    specific('white-women', 'White women', 'female', [20, 80], [501, 457]),
    specific('boys', 'Boys', 'male', [7, 12], [530, 489]),
    specific('boys-older', 'Boys', 'male', [13, 16], [507, 464]),
    specific('girls', 'Girls', 'female', [7, 12], [535, 495]),
    specific('girls-older', 'Girls', 'female', [13, 16], [510, 466]),
    specific('obese-women', 'Obese women', 'female', [17, 62], [500, 456]),
  ]),
}

export type ConversionId = string

const BY_ID = new Map(Object.entries(CONVERSIONS))

/** The conversion with this id; Siri for an unknown one. */
export function conversionOf(id: ConversionId): DensityConversion {
  return BY_ID.get(id) ?? SIRI
}

/**
 * Percent fat from body density. Unrounded; not limited to what a body can have (see estimate).
 * @param density body density in g/mL, above 0
 * @example percentFromDensity(1.06410388, 'siri') // 15.18
 */
export function percentFromDensity(density: number, conversion: ConversionId): number {
  const { a, b } = conversionOf(conversion)
  return a / density - b
}
