import { SITES, type SiteId } from '../../core/sites'

/** Our own code systems, for what LOINC has no certain code of. */
export const SYSTEM = {
  loinc: 'http://loinc.org',
  ucum: 'http://unitsofmeasure.org',
  category: 'http://terminology.hl7.org/CodeSystem/observation-category',
  site: 'urn:oak-pinch:site',
  set: 'urn:oak-pinch:set',
  panel: 'urn:oak-pinch:panel',
  reading: 'urn:oak-pinch:reading',
  checkin: 'urn:oak-pinch:checkin',
  note: 'urn:oak-pinch:reading-note',
  way: 'urn:oak-pinch:way',
} as const

/** What a measure is coded as. */
export interface Coding {
  system: string
  code: string
  display: string
}

export type Measure = SiteId | 'weight' | 'height'

/** LOINC's codes, where they mean exactly what is measured here. */
const LOINC: Readonly<Partial<Record<Measure | 'bmi' | 'percent', Coding>>> = {
  weight: { system: SYSTEM.loinc, code: '29463-7', display: 'Body weight' },
  height: { system: SYSTEM.loinc, code: '8302-2', display: 'Body height' },
  abdomen: { system: SYSTEM.loinc, code: '8280-0', display: 'Waist Circumference at umbilicus by Tape measure' },
  bmi: { system: SYSTEM.loinc, code: '39156-5', display: 'Body mass index (BMI) [Ratio]' },
  percent: { system: SYSTEM.loinc, code: '41982-0', display: 'Percentage of body fat Measured' },
}

/** Codings of a measure: ours always, LOINC's beside it where there is one. */
export function codingsOf(measure: Measure | 'bmi' | 'percent'): Coding[] {
  const loinc = LOINC[measure]
  const own = measure in SITES ? [{ system: SYSTEM.site, code: measure, display: SITES[measure as SiteId].name }] : []
  return [...(loinc ? [loinc] : []), ...own]
}

/** The measure codings stand for; null: none of ours. */
export function measureOf(
  codings: readonly { system?: string | undefined; code?: string | undefined }[],
): Measure | null {
  const own = codings.find(({ system }) => system === SYSTEM.site)?.code
  if (own && own in SITES) return own as SiteId
  const code = codings.find(({ system }) => system === SYSTEM.loinc)?.code
  return (['weight', 'height', 'abdomen'] as const).find((measure) => LOINC[measure]?.code === code) ?? null
}

/** UCUM's codes of our units. */
export const UCUM = { mm: 'mm', cm: 'cm', in: '[in_i]', kg: 'kg', lb: '[lb_av]' } as const
export type Unit = keyof typeof UCUM

export function unitOfUcum(code: string | undefined): Unit | null {
  return (Object.keys(UCUM) as Unit[]).find((unit) => UCUM[unit] === code) ?? null
}
