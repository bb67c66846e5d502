import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  cmToLength,
  formatChange,
  formatHeight,
  formatNumber,
  kgToMass,
  lengthToCm,
  massToKg,
  parseHeight,
  parseNumber,
  parseLength,
  parseMass,
  parseWeight,
} from '../../core/units'

const IMPERIAL = { mass: 'lb', length: 'in' } as const
const METRIC = { mass: 'kg', length: 'cm' } as const

describe('exact constants', () => {
  // International yard and pound agreement, 1959: 1 lb = 0.45359237 kg, 1 in = 2.54 cm.
  it('turns pounds and inches by the exact definitions', () => {
    expect(massToKg(1, 'lb')).toBe(0.45359237)
    expect(lengthToCm(1, 'in')).toBe(2.54)
  })

  it('inverts to the last digit a double holds', () => {
    const size = fc.double({ min: 0.1, max: 1000, noNaN: true })
    fc.assert(
      fc.property(size, (value) => {
        expect(kgToMass(massToKg(value, 'lb'), 'lb')).toBeCloseTo(value, 10)
        expect(cmToLength(lengthToCm(value, 'in'), 'in')).toBeCloseTo(value, 10)
        expect(kgToMass(value, 'kg')).toBe(value)
        expect(cmToLength(value, 'cm')).toBe(value)
      }),
    )
  })
})

describe('reading a weight as people write it', () => {
  it.each([
    ['71.5', 'kg', 71.5, 'kg'],
    ['12,5', 'kg', 12.5, 'kg'],
    ['167 lb', 'kg', 167, 'lb'],
    ['167', 'lb', 167, 'lb'],
    ['11 st 4 lb', 'kg', 158, 'lb'],
    ['11 st', 'kg', 154, 'lb'],
    ['157 1/2 pounds', 'kg', 157.5, 'lb'],
  ] as const)('%s in a %s field is %d %s', (text, unit, value, written) => {
    expect(parseMass(text, unit)).toEqual({ kind: 'value', value, unit: written })
  })

  it('asks whether a comma is decimal or between thousands, and never guesses', () => {
    const asked = parseMass('1,234', 'kg')
    expect(asked.kind).toBe('ask')
    expect(asked.kind === 'ask' && asked.meanings.map(({ value }) => value)).toEqual([1.234, 1234])
  })

  it.each(['', 'heavy', '-70', '70 70', '70 stones 20', '70 bananas', '0', '900 kg', '1/0'])('refuses %j', (text) => {
    const parsed = parseWeight(text, 'kg')
    expect(parsed.kind).toBe('wrong')
    expect(parsed.kind === 'wrong' && parsed.sentence.length).toBeGreaterThan(10)
  })
})

describe('reading a length as people write it', () => {
  it.each([
    ["5'10", 'cm', 70, 'in'],
    ['5\u203210\u2033', 'cm', 70, 'in'],
    ['5 ft 10 1/2 in', 'cm', 70.5, 'in'],
    ['178', 'cm', 178, 'cm'],
    ['1.78 m', 'in', 178, 'cm'],
    ['1780 mm', 'cm', 178, 'cm'],
    ['34 3/4', 'in', 34.75, 'in'],
    ['34¾', 'in', 34.75, 'in'],
    ['70 in', 'cm', 70, 'in'],
    ['6 feet', 'cm', 72, 'in'],
  ] as const)('%s in a %s field is %d %s', (text, unit, value, written) => {
    const parsed = parseLength(text, unit)
    expect(parsed).toMatchObject({ kind: 'value', unit: written })
    expect(parsed.kind === 'value' && parsed.value).toBeCloseTo(value, 12)
  })

  it.each(['5.11', '5.9', '1.74'])('asks what a height of %s means', (text) => {
    const parsed = parseHeight(text, 'cm')
    expect(parsed.kind).toBe('ask')
    expect(parsed.kind === 'ask' && parsed.meanings.length).toBeGreaterThan(0)
  })

  it('takes 5.11 for feet and inches or tenths of a foot, both offered', () => {
    const parsed = parseHeight('5.11', 'cm')
    const inches = parsed.kind === 'ask' ? parsed.meanings.map(({ value }) => value) : []
    expect(inches[0]).toBe(71)
    expect(inches[1]).toBeCloseTo(61.32, 10)
  })

  it('asks for the unit when a bare number fits another unit better', () => {
    expect(parseHeight('70', 'cm').kind).toBe('ask')
    expect(parseHeight('178', 'in').kind).toBe('ask')
  })

  it.each(["5'14", '5.5 ft 3', 'tall', '-178', '400', '5 ft 3 kg'])('refuses %j', (text) => {
    expect(parseHeight(text, 'cm').kind).toBe('wrong')
  })

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(['value', 'ask', 'wrong']).toContain(parseHeight(text, 'cm').kind)
        expect(['value', 'ask', 'wrong']).toContain(parseWeight(text, 'lb').kind)
      }),
    )
  })
})

describe('a plain number', () => {
  it.each([
    ['12', 12],
    [' 0,5 ', 0.5],
    ['−0.5', -0.5],
    ['-2', -2],
    ['+0.4', 0.4],
    ['10.', 10],
  ])('reads %j', (text, value) => {
    expect(parseNumber(text)).toBe(value)
  })

  it.each(['', ' ', '-', '12 mm', '1 2', '1e3', '--1', 'twelve'])('is none in %j', (text) => {
    expect(parseNumber(text)).toBeNaN()
  })
})

describe('writing numbers', () => {
  it('rounds once, with a real minus and no negative zero', () => {
    expect(formatNumber(-0.04, 1)).toBe('0.0')
    expect(formatNumber(-3.44, 1)).toBe('−3.4')
    expect(formatChange(0.52, 1)).toBe('+0.5')
    expect(formatChange(0.04, 1)).toBe('0.0')
  })

  it('writes heights in the person’s unit', () => {
    expect(formatHeight(174, METRIC)).toBe('174 cm')
    expect(formatHeight(177.8, IMPERIAL)).toBe('5 ft 10 in')
    expect(formatHeight(182.8, IMPERIAL)).toBe('6 ft 0 in')
    expect(formatHeight(lengthToCm(70.5, 'in'), IMPERIAL)).toBe('5 ft 10.5 in')
  })
})
