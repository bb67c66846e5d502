import type { Equation, InputId, KnownMeasures } from '#core/equations'
import { parseFold } from '#core/readings'
import { asSite, isFold, SITES } from '#core/sites'
import {
  cmToLength,
  kgToMass,
  lengthToCm,
  massToKg,
  parseHeight,
  parseLength,
  parseWeight,
  type Units,
} from '#core/units'

/** One field of "try it": what it is called, its unit, and an example to begin with. */
export interface TryField {
  input: InputId
  label: string
  unit: string
  example: string
}

/** Invented middling values to begin with, in mm, cm, kg and years. */
const BEGIN: Partial<Record<InputId, number>> = {
  age: 34,
  height: 174,
  weight: 72,
  neck: 36,
  waist: 78,
  abdomen: 84,
  iliac: 88,
  hip: 98,
}
const FOLD_MM = 14

function unitOf(input: InputId, units: Units): string {
  const site = asSite(input)
  if (input === 'age') return 'years'
  if (input === 'weight') return units.mass
  return site && isFold(site) ? 'mm' : units.length
}

function inUnits(input: InputId, units: Units): string {
  const value = BEGIN[input] ?? FOLD_MM
  const shown =
    input === 'weight' ? kgToMass(value, units.mass) : unitOf(input, units) === 'in' ? cmToLength(value, 'in') : value
  return String(Math.round(shown * 10) / 10)
}

/** The fields an equation asks for. */
export function tryFields(equation: Equation, units: Units): TryField[] {
  return equation.inputs.map((input) => {
    const site = asSite(input)
    const label = site ? SITES[site].name : `${input[0]?.toUpperCase()}${input.slice(1)}`
    return { input, label, unit: unitOf(input, units), example: inUnits(input, units) }
  })
}

function parse(input: InputId, text: string, units: Units): { value: number } | { problem: string } {
  const site = asSite(input)
  if (input === 'age') {
    const years = Number(text)
    return Number.isInteger(years) && years > 0 && years < 120
      ? { value: years }
      : { problem: 'Please give the age in whole years.' }
  }
  if (site && isFold(site)) {
    const fold = parseFold(text)
    return fold.ok ? { value: fold.mm } : { problem: fold.sentence }
  }
  if (input === 'weight') {
    const parsed = parseWeight(text, units.mass)
    return parsed.kind === 'value' ? { value: massToKg(parsed.value, parsed.unit) } : { problem: parsed.sentence }
  }
  const parsed = input === 'height' ? parseHeight(text, units.length) : parseLength(text, units.length)
  return parsed.kind === 'value' ? { value: lengthToCm(parsed.value, parsed.unit) } : { problem: parsed.sentence }
}

/** What was typed, as measures, with a sentence for each field that cannot be read. */
export function readTyped(fields: readonly TryField[], typed: Readonly<Record<string, string>>, units: Units) {
  const known: KnownMeasures = {}
  const problems: Partial<Record<InputId, string>> = {}
  for (const { input, example } of fields) {
    const result = parse(input, typed[input] ?? example, units)
    if ('value' in result) known[input] = result.value
    else problems[input] = result.problem
  }
  return { known, problems }
}
