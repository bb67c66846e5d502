import { LIMITS } from './limits'
import { bmiOf, finding, one, REFER, type Finding, type GateCode, type SafetyFacts } from './verdict'

/** What speaks against any deficit for this person, before anything is typed. */
export function personFindings(facts: SafetyFacts): Finding[] {
  const { sex, ageYears, flags, percent } = facts
  const found: Finding[] = []
  if (ageYears < LIMITS.adultYears.value)
    found.push(finding('stop', 'under-18', `Under 18: no plan by weight, fat or energy. ${REFER}`, { ageYears }))
  if (flags.includes('pregnant'))
    found.push(finding('stop', 'pregnant', `Pregnant or recently so: no deficit. ${REFER}`))
  if (flags.includes('eating-disorder'))
    found.push(finding('stop', 'eating-disorder', `Eating disorder, now or in the past: no deficit. ${REFER}`))
  if (flags.includes('neutral-wish'))
    found.push(finding('stop', 'neutral-wish', 'Neutral mode, as the client wishes: no deficit.'))
  const bmi = bmiOf(facts.weightKg, facts.heightCm)
  const { stop, caution } = LIMITS.leastBmi.value
  if (ageYears >= LIMITS.adultYears.value && bmi !== null && bmi < stop)
    found.push(finding('stop', 'bmi-now', `The BMI is ${one(bmi)}, under ${stop}: no plan to lose. ${REFER}`, { bmi }))
  else if (ageYears >= LIMITS.adultYears.value && bmi !== null && bmi < caution)
    found.push(finding('caution', 'bmi-now', `The BMI is ${one(bmi)}: there is little to lose.`, { bmi }))
  const { ageYears: old, leastBmi } = LIMITS.older.value
  if (ageYears >= old && bmi !== null && bmi < leastBmi)
    found.push(
      finding(
        'stop',
        'older',
        `${ageYears} years and a BMI of ${one(bmi)}: from ${old} years no loss is planned below ${leastBmi}. ${REFER}`,
        {
          ageYears,
          bmi,
        },
      ),
    )
  else if (ageYears >= old)
    found.push(
      finding('caution', 'older', `From ${old} years: slower, with strength training, after a doctor has agreed.`, {
        ageYears,
      }),
    )
  const least = LIMITS.leastPercent.value[sex]
  if (percent !== null && percent < least.stop)
    found.push(
      finding('stop', 'percent-now', `${one(percent)} % fat now, under ${least.stop}: no plan to lose. ${REFER}`, {
        percent,
      }),
    )
  return found
}

const PERSONAL: ReadonlySet<GateCode> = new Set([
  'under-18',
  'pregnant',
  'eating-disorder',
  'neutral-wish',
  'bmi-now',
  'older',
  'percent-now',
])

/** Whether a finding is about the person, whatever is planned. */
export const isPersonal = (code: GateCode) => PERSONAL.has(code)
