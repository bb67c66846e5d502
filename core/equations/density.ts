/** Two-component conversion of body density D (g/mL) to percent fat: a / D - b. */
export interface DensityConversion {
  id: string
  label: string
  a: number
  b: number
  source: string
}

/** Conversions a coach can choose. Constants recalled, not re-read in the papers. */
export const CONVERSIONS = {
  siri: { id: 'siri', label: 'Siri', a: 495, b: 450, source: 'Siri 1961' },
  brozek: { id: 'brozek', label: 'Brozek', a: 457, b: 414.2, source: 'Brozek et al. 1963' },
} as const satisfies Record<string, DensityConversion>

export type ConversionId = keyof typeof CONVERSIONS

/**
 * Percent fat from body density. Unrounded; not limited to what a body can have (see estimate).
 * @param density body density in g/mL, above 0
 * @example percentFromDensity(1.06410388, 'siri') // 15.18
 */
export function percentFromDensity(density: number, conversion: ConversionId): number {
  const { a, b } = CONVERSIONS[conversion]
  return a / density - b
}
