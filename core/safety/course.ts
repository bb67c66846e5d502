import { fixed } from '../units/round'
import { LIMITS } from './limits'
import { personFindings } from './person'
import { preparationPace } from './preparation'
import { bmiOf, finding, massSaid, one, REFER, SLACK, type Finding, type SafetyFacts } from './verdict'

/** Where a plan or a forecast leads. Null: not known. */
export interface Course {
  startKg: number | null
  endKg: number | null
  /** Percent fat at the end. */
  endPercent: number | null
  /** Weight change of the fastest week, kg; below zero: a loss. */
  weekKg: number | null
  /** Loss of the fastest week in points of percent fat, above zero; left out: not known. */
  weekPoints?: number | null
  /** Mean fold at the end, mm, where a sum is planned. */
  endFoldMm?: number | null
  direction: 'loss' | 'gain'
}

function endFindings(facts: SafetyFacts, course: Course): Finding[] {
  const found: Finding[] = []
  const bmi = bmiOf(course.endKg, facts.heightCm)
  const { stop, caution } = LIMITS.leastBmi.value
  if (bmi !== null && bmi < stop)
    found.push(
      finding('stop', 'bmi-end', `It would end at a BMI of ${one(bmi)}, under ${stop}: refused. ${REFER}`, { bmi }),
    )
  else if (bmi !== null && bmi < caution)
    found.push(finding('caution', 'bmi-end', `It would end at a BMI of ${one(bmi)}, which is low.`, { bmi }))
  const { ageYears: old, leastBmi } = LIMITS.older.value
  if (facts.ageYears >= old && bmi !== null && bmi < leastBmi)
    found.push(
      finding(
        'stop',
        'older',
        `It would end at a BMI of ${one(bmi)}: from ${old} years no loss is planned below ${leastBmi}. ${REFER}`,
        {
          bmi,
        },
      ),
    )
  const least = LIMITS.leastPercent.value[facts.sex]
  const percent = course.endPercent
  if (percent !== null && facts.preparing && percent >= least.never && percent < least.stop)
    found.push(
      finding(
        'caution',
        'percent-end',
        `${one(percent)} % fat is for the day alone, by the medical clearance on record: plan the way back now.`,
        { percent },
      ),
    )
  else if (percent !== null && percent < least.stop)
    found.push(
      finding(
        'stop',
        'percent-end',
        `It would end at ${one(percent)} % fat, under ${least.stop} (essential fat of ${facts.sex === 'male' ? 'men is about 3 to 5' : 'women is about 10 to 13'} %): refused. ${REFER}`,
        {
          percent,
        },
      ),
    )
  else if (percent !== null && percent < least.caution)
    found.push(
      finding(
        'caution',
        'percent-end',
        `It would end at ${one(percent)} % fat, close to essential fat: for a short time, and a medical matter.`,
        {
          percent,
        },
      ),
    )
  const fold = course.endFoldMm ?? null
  if (fold !== null && fold < LIMITS.leastFoldMm.value[facts.sex])
    found.push(
      finding(
        'stop',
        'folds-end',
        `Folds of ${one(fold)} mm on average are thinner than those of the leanest athletes: refused.`,
        {
          foldMm: fold,
        },
      ),
    )
  return found
}

/** In a preparation the pace is limited in points of percent fat; where none are known, as outside it. */
function preparationPaceFindings(facts: SafetyFacts, course: Course): Finding[] {
  const points = course.weekPoints ?? null
  if (points === null || course.endPercent === null) return lossPace({ ...facts, preparing: false }, course)
  const most = preparationPace(facts.sex, course.endPercent)
  if (points <= most + SLACK) return []
  return [
    finding(
      'stop',
      'pace',
      `That is ${fixed(points, 2)} points of percent fat a week; no more than ${most} in a preparation that ends there.`,
      { points, most },
    ),
  ]
}

function lossPace(facts: SafetyFacts, course: Course): Finding[] {
  const { startKg, weekKg } = course
  if (startKg === null || weekKg === null || weekKg >= 0) return []
  if (facts.preparing) return preparationPaceFindings(facts, course)
  const { share, kg, caution, highBmi, highShare, highKg } = LIMITS.loss.value
  const bmi = bmiOf(startKg, facts.heightCm)
  const isHigh = bmi !== null && bmi >= highBmi
  const most = isHigh ? Math.min(highKg, highShare * startKg) : Math.min(kg, share * startKg)
  const loss = -weekKg
  if (loss > most + SLACK)
    return [
      finding('stop', 'pace', `That is ${massSaid(loss)} a week; no more than ${massSaid(most)} for this person.`, {
        weekKg: loss,
        mostKg: most,
      }),
    ]
  if (loss > caution * startKg + SLACK)
    return [
      finding('caution', 'pace', `That is ${fixed((100 * loss) / startKg, 1)} % of body weight a week: a fast pace.`, {
        weekKg: loss,
      }),
    ]
  return []
}

function gainFindings(facts: SafetyFacts, { startKg, endKg, weekKg }: Course): Finding[] {
  const found: Finding[] = []
  const { stop, caution } = LIMITS.gain.value
  if (startKg !== null && weekKg !== null && weekKg > stop * startKg + SLACK)
    found.push(
      finding('stop', 'gain', `That is ${massSaid(weekKg)} gained a week; no more than 1 % of body weight.`, {
        weekKg,
      }),
    )
  else if (startKg !== null && weekKg !== null && weekKg > caution * startKg + SLACK)
    found.push(
      finding('caution', 'gain', `That is ${massSaid(weekKg)} gained a week: more of it will be fat.`, { weekKg }),
    )
  const bmi = bmiOf(endKg, facts.heightCm)
  const most = LIMITS.wholeGain.value
  const isWhole = startKg !== null && endKg !== null && endKg > startKg * (1 + most.stop)
  const startBmi = bmiOf(startKg, facts.heightCm)
  if (isWhole || (bmi !== null && bmi > most.bmi && (startBmi === null || bmi > startBmi)))
    found.push(
      finding('stop', 'gain-whole', `It would end at ${massSaid(endKg ?? 0, 0)}: no such gain is planned.`, {
        endKg: endKg ?? 0,
      }),
    )
  return found
}

/** What speaks for care or against a plan or a forecast that leads there. */
export function courseFindings(facts: SafetyFacts, course: Course): Finding[] {
  if (facts.ageYears < LIMITS.adultYears.value) return personFindings(facts).filter(({ code }) => code === 'under-18')
  if (course.direction === 'gain') return gainFindings(facts, course)
  return [...personFindings(facts), ...endFindings(facts, course), ...lossPace(facts, course)]
}
