import { LIMITS } from './limits'
import { personFindings } from './person'
import { bmiOf, finding, one, type Finding, type SafetyFacts } from './verdict'

/** What speaks against taking part in a challenge. */
export function challengeFindings(facts: SafetyFacts): Finding[] {
  const found = personFindings(facts).filter(({ outcome }) => outcome === 'stop')
  const { bmi: least, percent: leastPercent } = LIMITS.challenge.value
  const bmi = bmiOf(facts.weightKg, facts.heightCm)
  if (bmi !== null && bmi < least && !found.some(({ code }) => code === 'bmi-now'))
    found.push(finding('stop', 'bmi-challenge', `The BMI is ${one(bmi)}, under ${least}: no challenges.`, { bmi }))
  const floor = leastPercent[facts.sex]
  if (facts.percent !== null && facts.percent < floor && !found.some(({ code }) => code === 'percent-now'))
    found.push(
      finding('stop', 'percent-challenge', `${one(facts.percent)} % fat, under ${floor}: no challenges.`, {
        percent: facts.percent,
      }),
    )
  return found
}
