import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkCopied, checkSlip, type SlipEntry } from '../../core/readings'
import { isFold, SITES, type SiteId } from '../../core/sites'

const last = { triceps: 14, chest: 8, midaxillary: 10, subscapular: 13, suprailiac: 15.5, abdominal: 21, thigh: 22.5 }

function slip(measure: SlipEntry['measure'], value: number, more: Partial<SlipEntry> = {}) {
  return checkSlip({ measure, value, last, here: {}, ...more })
}

describe('slips while measuring', () => {
  it('lets an ordinary reading pass', () => {
    for (const [site, value] of Object.entries(last)) expect(slip(site as SiteId, value + 0.5)).toBeNull()
  })

  it('blocks what no body has, with the range and what was probably meant', () => {
    expect(slip('triceps', 125)).toMatchObject({ code: 'range', blocks: true, correction: { value: 12.5 } })
    expect(slip('triceps', 125)?.sentence).toContain('between 1.5 and 80 mm')
    expect(slip('triceps', 0.5)).toMatchObject({ blocks: true, correction: { value: 12.7, label: '12.7 mm' } })
    expect(slip('waist', 31)).toMatchObject({ blocks: true, correction: { value: 78.7 } })
    expect(slip('height', 5.11)).toMatchObject({ blocks: true })
    expect(slip('height', 1.74)).toMatchObject({ blocks: true, correction: { value: 174 } })
    expect(slip('weight', 715, { last: {} })).toMatchObject({ blocks: true })
    expect(slip('chest', -3)).toMatchObject({ blocks: true })
    expect(slip('chest', NaN)).toMatchObject({ blocks: true })
  })

  it('never proposes a correction that no body has or that is far from last time', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 2000, noNaN: true }), (value) => {
        const found = slip('thigh', value)
        if (found?.code === 'range' && found.correction) {
          expect(Math.abs(Math.log(found.correction.value / 22.5))).toBeLessThan(0.35)
        }
      }),
    )
  })

  it('sees a lost decimal point inside the range', () => {
    expect(slip('chest', 75, { last: { chest: 7.5 } })).toMatchObject({
      code: 'decimal',
      blocks: false,
      correction: { value: 7.5 },
    })
  })

  it('sees pounds for kilograms and inches for centimetres', () => {
    expect(slip('weight', 158, { last: { weight: 71.5 } })).toMatchObject({ code: 'unit', correction: { value: 71.7 } })
    expect(slip('hip', 98 / 2.54 + 20, { last: { hip: 148.8 } })).toMatchObject({ code: 'unit' })
  })

  it('sees a value in the wrong row and proposes the right one', () => {
    expect(slip('chest', 13)).toMatchObject({ code: 'wrong-row', correction: { measure: 'subscapular', value: 13 } })
    expect(slip('chest', 13, { here: { subscapular: 13 } })?.code).not.toBe('wrong-row')
  })

  it('sees two rows swapped', () => {
    const found = slip('subscapular', 8, { here: { chest: 13 } })
    expect(found).toMatchObject({ code: 'swapped', blocks: false })
    expect(found?.sentence).toContain('chest')
  })

  it('says when a value is far from last time: 40 %, or three smallest real changes', () => {
    expect(slip('thigh', 33)).toMatchObject({ code: 'far', correction: null })
    expect(slip('thigh', 29)).toBeNull()
    expect(slip('thigh', 29, { realChange: 2 })).toMatchObject({ code: 'far' })
    expect(slip('weight', 80, { last: { weight: 71 } })).toMatchObject({ code: 'far' })
  })

  it('knows the orders bodies keep', () => {
    const none = { last: {} }
    expect(slip('neck', 60, { ...none, here: { abdomen: 58 } })).toMatchObject({ code: 'order' })
    expect(slip('wrist', 29, { ...none, here: { forearm: 27 } })).toMatchObject({ code: 'order' })
    expect(slip('hip', 70, { ...none, here: { waist: 95 } })).toMatchObject({ code: 'order' })
    expect(slip('hip', 98, { ...none, here: { waist: 80 } })).toBeNull()
  })

  it('blocks only values outside the range, whatever else is odd', () => {
    const site = fc.constantFrom(...(Object.keys(SITES) as SiteId[]))
    fc.assert(
      fc.property(site, fc.double({ min: 0.1, max: 300, noNaN: true }), (at, value) => {
        const found = slip(at, value)
        if (found?.blocks) expect(found.code).toBe('range')
        if (found) expect(found.sentence).toMatch(/[.?]$/)
        if (isFold(at) && (value < 1.5 || value > 80)) expect(found?.blocks).toBe(true)
      }),
    )
  })

  it('sees a round that looks copied', () => {
    expect(checkCopied(last, last, 'last time')?.sentence).toContain('All 7 values')
    expect(checkCopied({ ...last, chest: 8.5 }, last, 'last time')).toBeNull()
    expect(checkCopied({ chest: 8 }, last, 'last time')).toBeNull()
  })
})

describe('the marks of a caliper', () => {
  const entry = (value: number, resolutionMm: number | null) =>
    checkSlip({ measure: 'triceps', value, last: {}, here: {}, resolutionMm })

  it('does not believe a value between them and proposes the nearest', () => {
    expect(entry(12.3, 0.5)).toMatchObject({ code: 'marks', blocks: false, correction: { value: 12.5 } })
    expect(entry(12.3, 0.5)?.sentence).toContain('half millimetre')
    expect(entry(12.3, 1)?.correction?.value).toBe(12)
    expect(entry(12.3, 0.2)?.correction?.value).toBe(12.4)
  })

  it('says nothing of a value on a mark, of a girth, or where the marks are not known', () => {
    for (const value of [12, 12.5, 0.5 * 31]) expect(entry(value, 0.5)).toBeNull()
    expect(entry(12.3, 0.1)).toBeNull()
    expect(entry(12.3, null)).toBeNull()
    expect(checkSlip({ measure: 'waist', value: 80.3, last: {}, here: {}, resolutionMm: 0.5 })).toBeNull()
  })
})
