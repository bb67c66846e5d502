import { BOUNDS } from './bounds'
import { CM_PER_INCH, INCHES_PER_FOOT, type LengthUnit, lengthToCm } from './length'
import { LB_PER_STONE, type MassUnit, massToKg } from './mass'
import { scanNumbers, type WrittenNumber } from './scan'

/** One way to understand an ambiguous entry. */
export interface Meaning<Unit> {
  value: number
  unit: Unit
  label: string
}

/** What an entry means: one value, a question with its possible answers, or a sentence saying what is wrong. */
export type Parsed<Unit> =
  | { kind: 'value'; value: number; unit: Unit }
  | { kind: 'ask'; sentence: string; meanings: Meaning<Unit>[] }
  | { kind: 'wrong'; sentence: string }

const MASS_WORDS: Record<string, 'kg' | 'lb' | 'st'> = {
  kg: 'kg',
  kgs: 'kg',
  kilo: 'kg',
  kilos: 'kg',
  lb: 'lb',
  lbs: 'lb',
  pound: 'lb',
  pounds: 'lb',
  st: 'st',
  stone: 'st',
}

const LENGTH_WORDS: Record<string, 'cm' | 'm' | 'in' | 'ft' | 'mm'> = {
  cm: 'cm',
  m: 'm',
  mm: 'mm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  "''": 'in',
  ft: 'ft',
  foot: 'ft',
  feet: 'ft',
  "'": 'ft',
}

function wrong<Unit>(sentence: string): Parsed<Unit> {
  return { kind: 'wrong', sentence }
}

function askComma<Unit>(first: WrittenNumber, unit: Unit): Parsed<Unit> {
  const small = first.value
  const large = small * 1000
  return {
    kind: 'ask',
    sentence: `Is the comma a decimal mark (${small}) or between thousands (${large})? Please write it with a point.`,
    meanings: [small, large].map((value) => ({ value, unit, label: `${value}` })),
  }
}

/**
 * Reads a mass as people write it: "71.5", "71,5 kg", "167 lb", "11 st 4 lb". A bare number is in `unit`.
 * The result keeps the unit that was written (stones become pounds), so that nothing is converted twice.
 */
export function parseMass(text: string, unit: MassUnit): Parsed<MassUnit> {
  const numbers = scanNumbers(text)
  const [first, second] = numbers ?? []
  if (!numbers || !first || numbers.length > 2) {
    return wrong('Please write a weight such as 71.5, 71.5 kg, 157 lb or 11 st 4 lb.')
  }
  if (first.ambiguousComma) return askComma(first, unit)
  const word = first.unit === '' ? unit : MASS_WORDS[first.unit]
  if (!word) return wrong(`"${first.unit}" is not a unit of weight here. Use kg, lb or st.`)
  if (word === 'st') {
    const pounds = second && (second.unit === '' || MASS_WORDS[second.unit] === 'lb') ? second.value : 0
    if (second && pounds !== second.value) return wrong('After stones, write pounds: 11 st 4 lb.')
    if (pounds >= LB_PER_STONE) return wrong('A stone has 14 pounds: write pounds below 14 after stones.')
    return { kind: 'value', value: first.value * LB_PER_STONE + pounds, unit: 'lb' }
  }
  if (second) return wrong('Please write one weight.')
  return { kind: 'value', value: first.value, unit: word }
}

function feetAndInches(feet: WrittenNumber, inches: WrittenNumber | undefined): Parsed<LengthUnit> {
  if (!inches) {
    return { kind: 'value', value: feet.value * INCHES_PER_FOOT, unit: 'in' }
  }
  if (inches.unit !== '' && LENGTH_WORDS[inches.unit] !== 'in') return wrong('After feet, write inches: 5 ft 10 in.')
  if (inches.value >= INCHES_PER_FOOT) return wrong('A foot has 12 inches: write inches below 12 after feet.')
  if (!Number.isInteger(feet.value)) return wrong('Write whole feet when inches follow: 5 ft 10 in.')
  return { kind: 'value', value: feet.value * INCHES_PER_FOOT + inches.value, unit: 'in' }
}

/**
 * Reads a length or girth as people write it: "178", "1.78 m", "5'10", "5 ft 10 1/2 in", "34 3/4". A bare number is in
 * `unit`. The result keeps inches as inches and gives metres and millimetres in centimetres.
 */
export function parseLength(text: string, unit: LengthUnit): Parsed<LengthUnit> {
  const numbers = scanNumbers(text)
  const [first, second] = numbers ?? []
  if (!numbers || !first || numbers.length > 2) {
    return wrong('Please write a length such as 178, 178 cm, 1.78 m, 70 in or 5 ft 10 in.')
  }
  if (first.ambiguousComma) return askComma(first, unit)
  const word = first.unit === '' ? (first.fraction ? 'in' : unit) : LENGTH_WORDS[first.unit]
  if (!word) return wrong(`"${first.unit}" is not a unit of length here. Use cm, m, in or ft.`)
  if (word === 'ft') return feetAndInches(first, second)
  if (second) return wrong('Please write one length.')
  if (first.fraction && first.unit === '' && unit === 'cm') {
    return {
      kind: 'ask',
      sentence: `Fractions are usual for inches. Is it ${first.value} in or ${first.value} cm?`,
      meanings: [
        { value: first.value, unit: 'in', label: `${first.value} in` },
        { value: first.value, unit: 'cm', label: `${first.value} cm` },
      ],
    }
  }
  switch (word) {
    case 'm':
      return { kind: 'value', value: first.value * 100, unit: 'cm' }
    case 'mm':
      return { kind: 'value', value: first.value / 10, unit: 'cm' }
    case 'cm':
    case 'in':
      return { kind: 'value', value: first.value, unit: word }
  }
}

/** Body heights the product accepts, in cm. */
export const HEIGHT_RANGE_CM = BOUNDS.heightCm

/** Body weights the product accepts, in kg. */
export const WEIGHT_RANGE_KG = BOUNDS.weightKg

function heightQuestion(text: string, cm: number): Parsed<LengthUnit> | null {
  const [first] = scanNumbers(text) ?? []
  if (!first || first.unit !== '') return null
  if (first.value >= 3 && first.value < 9) {
    const feet = Math.trunc(first.value)
    const inches = first.decimals === '' ? 0 : Number(first.decimals)
    const meanings: Meaning<LengthUnit>[] =
      inches < INCHES_PER_FOOT
        ? [{ value: feet * INCHES_PER_FOOT + inches, unit: 'in', label: `${feet} ft ${inches} in` }]
        : []
    const tenths = first.value * INCHES_PER_FOOT
    meanings.push({ value: tenths, unit: 'in', label: `${first.value} ft (${Number(tenths.toFixed(1))} in)` })
    return {
      kind: 'ask',
      sentence: `Is ${text.trim()} meant as ${meanings.map((m) => m.label).join(' or ')}? Please write feet and inches: ${feet}'${inches}".`,
      meanings,
    }
  }
  if (first.value > 1 && first.value < 2.6) {
    return {
      kind: 'ask',
      sentence: `Is ${text.trim()} meant in metres? Please write ${text.trim()} m.`,
      meanings: [{ value: first.value * 100, unit: 'cm', label: `${first.value} m` }],
    }
  }
  if (cm > HEIGHT_RANGE_CM.high && first.value >= HEIGHT_RANGE_CM.low && first.value <= HEIGHT_RANGE_CM.high) {
    return {
      kind: 'ask',
      sentence: `${text.trim()} inches would be ${(cm / 100).toFixed(2)} m. Is it ${text.trim()} cm?`,
      meanings: [{ value: first.value, unit: 'cm', label: `${first.value} cm` }],
    }
  }
  if (cm < HEIGHT_RANGE_CM.low && first.value >= 48 && first.value <= 84) {
    return {
      kind: 'ask',
      sentence: `Is ${text.trim()} meant in inches? Please write ${text.trim()} in.`,
      meanings: [{ value: first.value, unit: 'in', label: `${first.value} in` }],
    }
  }
  return null
}

/** Reads a body height; asks where feet, metres or inches may be meant, and refuses what no body has. */
export function parseHeight(text: string, unit: LengthUnit): Parsed<LengthUnit> {
  const parsed = parseLength(text, unit)
  if (parsed.kind !== 'value') return parsed
  const cm = lengthToCm(parsed.value, parsed.unit)
  const question = heightQuestion(text, cm)
  if (question) return question
  if (cm >= HEIGHT_RANGE_CM.low && cm <= HEIGHT_RANGE_CM.high) return parsed
  const { low, high } = HEIGHT_RANGE_CM
  return wrong(
    `A height lies between ${low} and ${high} cm (${Math.ceil(low / CM_PER_INCH)} and ${Math.floor(high / CM_PER_INCH)} in).`,
  )
}

/** Reads a body weight and refuses what no client has. */
export function parseWeight(text: string, unit: MassUnit): Parsed<MassUnit> {
  const parsed = parseMass(text, unit)
  if (parsed.kind !== 'value') return parsed
  const kg = massToKg(parsed.value, parsed.unit)
  const { low, high } = WEIGHT_RANGE_KG
  if (kg >= low && kg <= high) return parsed
  return wrong(
    `A weight lies between ${low} and ${high} kg (${Math.ceil(low / massToKg(1, 'lb'))} and ${Math.floor(high / massToKg(1, 'lb'))} lb).`,
  )
}
