import { describe, expect, it } from 'vitest'
import { ASSUMED_ERRORS, readingVariance, siteVisitVariance, weighingVariance } from '../../core/error/model'
import { seededRandom } from '../../core/simulate'

describe('the assumed error', () => {
  it('has a floor, a share and the caliper’s marks, by hand', () => {
    expect(readingVariance('thigh', 20, 0.5, ASSUMED_ERRORS)).toBeCloseTo(0.16 + 0.64 + 0.25 / 12, 12)
    expect(readingVariance('waist', 80, 0, ASSUMED_ERRORS)).toBeCloseTo(0.09 + 0.56 ** 2, 12)
  })

  it('is about 5 mm in a sum of seven folds of 118 mm (common practice)', () => {
    const fold = 118 / 7
    const own = 7 * siteVisitVariance(readingVariance('thigh', fold, 0.5, ASSUMED_ERRORS), 2, ASSUMED_ERRORS)
    expect(Math.sqrt(own + (ASSUMED_ERRORS.dayShare * 118) ** 2)).toBeCloseTo(5, 0)
  })

  it('of a week’s mean of days that hang together is what simulated weeks scatter by', () => {
    const random = seededRandom(2)
    const { weightShare, weightDayCorrelation: r } = ASSUMED_ERRORS
    const WEEKS = 20_000
    let squares = 0
    for (let week = 0; week < WEEKS; week += 1) {
      let [lasting, sum] = [random.normal(), 0]
      for (let day = 0; day < 7; day += 1) {
        sum += lasting
        lasting = r * lasting + Math.sqrt(1 - r ** 2) * random.normal()
      }
      squares += ((sum / 7) * weightShare * 70) ** 2
    }
    expect(weighingVariance(70, 7, ASSUMED_ERRORS) / (squares / WEEKS)).toBeCloseTo(1, 1)
    expect(weighingVariance(70, 1, ASSUMED_ERRORS)).toBeCloseTo((0.007 * 70) ** 2, 12)
  })
})
