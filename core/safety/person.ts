import type { Flag } from '../cautions/flags'
import { LIMITS } from './limits'
import { bmiOf, finding, one, REFER, type Finding, type GateCode, type Outcome, type SafetyFacts } from './verdict'

interface FlagFinding {
  outcome: Outcome
  sentence: string
  /** A caution instead, once the prescriber has agreed. */
  prescribed?: true
  agreed: string
}

const stopped = (what: string): FlagFinding => ({
  outcome: 'stop',
  sentence: `${what}: no deficit. ${REFER}`,
  agreed: '',
})
const prescription = (what: string): FlagFinding => ({
  outcome: 'stop',
  sentence: `${what}: no deficit before the prescriber, a doctor, agrees.`,
  prescribed: true,
  agreed: `${what}: the prescriber agrees to a deficit; they follow the dose.`,
})
const careful = (what: string, why: string): FlagFinding => ({
  outcome: 'caution',
  sentence: `${what}: ${why}`,
  agreed: '',
})
const SPORTS_DOCTOR = 'any deficit needs care; see a sports doctor first.'

/** What each flag does to a deficit; the others do nothing to one. Common practice of sports medicine and dietetics. */
const FLAG_FINDINGS: Partial<Record<Flag, FlagFinding>> = {
  pregnant: stopped('Pregnant or recently so'),
  breastfeeding: stopped('Breastfeeding, first six months'),
  'eating-disorder': stopped('Eating disorder, now or in the past'),
  dialysis: stopped('Dialysis'),
  'neutral-wish': { outcome: 'stop', sentence: 'Neutral mode, as the client wishes: no deficit.', agreed: '' },
  'diabetes-medication': prescription('Diabetes with tablets or insulin'),
  'appetite-medication': prescription('Medication that lowers appetite'),
  'missed-periods': careful('Missed or irregular periods', SPORTS_DOCTOR),
  'stress-fracture': careful('Stress fracture', SPORTS_DOCTOR),
  fainting: careful('Fainting', SPORTS_DOCTOR),
  'breastfeeding-later': careful('Breastfeeding', 'a small deficit at most; milk comes first.'),
}

/** What speaks against any deficit for this person, before anything is typed. */
export function personFindings(facts: SafetyFacts): Finding[] {
  const { sex, ageYears, flags, percent } = facts
  const found: Finding[] = []
  if (ageYears < LIMITS.adultYears.value)
    found.push(finding('stop', 'under-18', `Under 18: no plan by weight, fat or energy. ${REFER}`, { ageYears }))
  for (const flag of flags) {
    const said = FLAG_FINDINGS[flag]
    if (!said) continue
    const isAgreed = said.prescribed === true && flags.includes('prescriber-agreed')
    found.push(isAgreed ? finding('caution', flag, said.agreed) : finding(said.outcome, flag, said.sentence))
  }
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
  const limit = LIMITS.leastPercent.value[sex]
  const least = { stop: facts.preparing ? limit.never : limit.stop }
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
  ...(Object.keys(FLAG_FINDINGS) as Flag[]),
  'bmi-now',
  'older',
  'percent-now',
])

/** Whether a finding is about the person, whatever is planned. */
export const isPersonal = (code: GateCode) => PERSONAL.has(code)
