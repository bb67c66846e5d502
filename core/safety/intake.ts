import { fixed } from '../units/round'
import { LIMITS } from './limits'
import { personFindings } from './person'
import { bmiOf, finding, REFER, whole, type Finding, type Outcome, type SafetyFacts } from './verdict'

/** What is eaten, beside what is used; kcal a day. */
export interface Intake {
  intakeKcal: number
  dailyKcal: number
  restingKcal: number
  /** Training's part of daily expenditure. */
  trainingKcal: number
  fatFreeKg: number | null
}

/** What speaks for care or against an intake. It needs weight and height; availability is looked at where lean mass is known. */
export function intakeFindings(facts: SafetyFacts, intake: Intake): Finding[] {
  const { intakeKcal, dailyKcal, restingKcal, trainingKcal, fatFreeKg } = intake
  const deficit = dailyKcal - intakeKcal
  if (deficit > 0 || facts.ageYears < LIMITS.adultYears.value) {
    const personal = personFindings(facts).filter(({ outcome }) => outcome === 'stop')
    if (personal.length > 0) return personal
  }
  const found: Finding[] = []
  const bmi = bmiOf(facts.weightKg, facts.heightCm)
  const isHigh = bmi !== null && bmi >= LIMITS.deficit.value.highBmi
  const low: Outcome = isHigh ? 'caution' : 'stop'
  const way = isHigh ? 'Together with a registered dietitian only.' : REFER
  const floor = LIMITS.intake.value[facts.sex]
  if (intakeKcal < floor)
    found.push(
      finding(
        low,
        'floor',
        `${whole(intakeKcal)} kcal a day is under ${whole(floor)} for ${facts.sex === 'male' ? 'men' : 'women'}. ${way}`,
        {
          intakeKcal,
        },
      ),
    )
  if (deficit > 0 && intakeKcal < restingKcal)
    found.push(
      finding(
        low,
        'resting',
        `${whole(intakeKcal)} kcal a day is under resting expenditure, about ${whole(restingKcal)}. ${way}`,
        {
          intakeKcal,
          restingKcal,
        },
      ),
    )
  const { stop, caution, highCaution } = LIMITS.deficit.value
  if (deficit > stop + 1)
    found.push(
      finding('stop', 'deficit', `A deficit of ${whole(deficit)} kcal a day; no more than ${whole(stop)}. ${REFER}`, {
        deficit,
      }),
    )
  else if (deficit > (isHigh ? highCaution : caution) + 1)
    found.push(
      finding(
        'caution',
        'deficit',
        `A deficit of ${whole(deficit)} kcal a day is large: watch lean mass and training.`,
        { deficit },
      ),
    )
  const { stop: surplus, caution: much } = LIMITS.surplus.value
  if (-deficit > surplus + 1)
    found.push(
      finding('stop', 'surplus', `${whole(-deficit)} kcal a day over what is used; no more than ${whole(surplus)}.`, {
        surplus: -deficit,
      }),
    )
  else if (-deficit > much + 1)
    found.push(
      finding('caution', 'surplus', `${whole(-deficit)} kcal a day over what is used: more of the gain will be fat.`, {
        surplus: -deficit,
      }),
    )
  const available = fatFreeKg === null ? null : (intakeKcal - trainingKcal) / fatFreeKg
  const availability = LIMITS.availability.value
  if (deficit > 0 && available !== null && !(bmi !== null && bmi >= availability.belowBmi)) {
    if (available < availability.stop)
      found.push(
        finding(
          'stop',
          'availability',
          `That leaves ${fixed(available, 0)} kcal a day for each kg of lean mass once training is paid for, under ${availability.stop}. ${REFER}`,
          {
            available,
          },
        ),
      )
    else if (available < availability.caution)
      found.push(
        finding(
          'caution',
          'availability',
          `That leaves ${fixed(available, 0)} kcal a day for each kg of lean mass once training is paid for: under ${availability.caution} bones, hormones and training can suffer. It rests on short studies of women; there is no fixed line.`,
          {
            available,
          },
        ),
      )
  }
  return found
}
