import type { Sex } from '../equations/equation'

/**
 * Limits of the gate as data. Sources, all recalled from memory: ACSM position stands on weight loss and on nutrition and
 * athletic performance; the IOC consensus statements on relative energy deficiency in sport (2014, 2018, 2023); WHO classes of
 * BMI; general practice of dietetics. Local rules and licensed practice decide.
 */
export interface SourcedLimit<Value> {
  value: Value
  source: string
}

const limit = <Value>(value: Value, source: string): SourcedLimit<Value> => ({ value, source })

export const LIMITS = {
  /** BMI of an adult under which no loss is planned, now or at the end; above it a caution up to the second. */
  leastBmi: limit({ stop: 18.5, caution: 20 }, 'WHO classes of BMI (recalled); caution common practice'),
  /** From 65 years a loss is planned from this BMI on only. */
  older: limit({ ageYears: 65, leastBmi: 23 }, 'General practice of dietetics for older adults (recalled)'),
  /** Percent fat at the end of a plan. Never under `never`; under `stop` with a clearance and a day alone. */
  leastPercent: limit<Readonly<Record<Sex, { never: number; stop: number; caution: number }>>>(
    { female: { never: 10, stop: 13, caution: 16 }, male: { never: 3, stop: 5, caution: 8 } },
    'Essential fat (common practice); ACSM, loss of weight in athletes (recalled)',
  ),
  /** Mean fold under which no sum is planned, mm. */
  leastFoldMm: limit<Readonly<Record<Sex, number>>>(
    { female: 6, male: 4.5 },
    'Our own bound, under the leanest athletes of the profile data (mean folds 5.0 men, 6.6 women)',
  ),
  /** Loss a week, as a share of body weight and in kg, whichever is less; from `highBmi` on the second pair. */
  loss: limit(
    { share: 0.01, kg: 0.9, caution: 0.007, highBmi: 30, highShare: 0.012, highKg: 1.4 },
    'ACSM position stand on weight loss (recalled)',
  ),
  /** Gain a week as a share of body weight. */
  gain: limit({ stop: 0.01, caution: 0.005 }, 'General practice of sports dietetics (recalled)'),
  /** A gain of more than this share of the starting weight is no plan. */
  wholeGain: limit(
    { stop: 0.25, bmi: 35 },
    'Our own bound on what can be meant: a quarter of body weight, or BMI 35 at the end',
  ),
  /** Least intake, kcal a day. */
  intake: limit<Readonly<Record<Sex, number>>>(
    { female: 1200, male: 1500 },
    'General practice of dietetics (recalled)',
  ),
  /** Deficit, kcal a day. */
  deficit: limit(
    { stop: 1000, caution: 500, highBmi: 30, highCaution: 750 },
    'ACSM position stand on weight loss (recalled): 500 to 1,000 kcal a day',
  ),
  /** Surplus, kcal a day: more is no plan. */
  surplus: limit({ stop: 1000, caution: 500 }, 'General practice of sports dietetics (recalled)'),
  /** Intake less training for each kg of fat-free mass, kcal a day. */
  availability: limit(
    { stop: 25, caution: 30, belowBmi: 30 },
    'IOC consensus on relative energy deficiency in sport (recalled): from short studies of women; there is no fixed line',
  ),
  /** Weight lost without a plan. */
  unplanned: limit({ share: 0.05, days: 182, weekShare: 0.01 }, 'General practice of medicine (recalled)'),
  /** A challenge is for people above these. */
  challenge: limit<{ bmi: number; percent: Readonly<Record<Sex, number>> }>(
    { bmi: 20, percent: { female: 20, male: 12 } },
    'Common practice',
  ),
  /** A preparation for a day that does not move lasts so long at most, weeks; its paces in points of percent fat a week. */
  preparation: limit(
    {
      weeks: 26,
      pace: {
        female: { above: 18, high: 1, low: 0.5 },
        male: { above: 10, high: 1, low: 0.5 },
      } satisfies Record<Sex, { above: number; high: number; low: number }>,
    },
    'Common practice of contest preparation',
  ),
  adultYears: limit(18, 'Common practice'),
  /** No photographs from home under this age. */
  homePhotoYears: limit(16, 'Common practice of safeguarding'),
} as const
