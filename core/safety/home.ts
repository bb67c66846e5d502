import { personFindings } from './person'
import type { Finding, GateCode, SafetyFacts } from './verdict'

/** What a client's link may ask for at home. */
export type HomeAsk = 'weigh-ins' | 'girths' | 'photographs'

/** Under these nothing the client may see holds a number about their body. */
const NEUTRAL: ReadonlySet<GateCode> = new Set<GateCode>([
  'under-18',
  'pregnant',
  'breastfeeding',
  'eating-disorder',
  'dialysis',
  'neutral-wish',
])

/**
 * What speaks against asking somebody for something at home: a coach turns it on with a reason only. A daily weight is
 * asked of nobody for whom no loss is planned; the tape and pictures of nobody in neutral mode.
 */
export function homeFindings(facts: SafetyFacts, ask: HomeAsk): Finding[] {
  const stops = personFindings(facts).filter(({ outcome }) => outcome === 'stop')
  return ask === 'weigh-ins' ? stops : stops.filter(({ code }) => NEUTRAL.has(code))
}
