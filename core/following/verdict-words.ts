import { formatNumber } from '../units'
import type { Change } from './change'
import { MOST_SAID, type VerdictKind } from './verdict'

/** A verdict in words: by the way the estimate goes, and short. One table for screens, paper, mails and files. */
export const VERDICT_WORDS: Readonly<Record<VerdictKind, { down: string; up: string; short: string }>> = {
  real: { down: 'real loss', up: 'real gain', short: 'real' },
  'some-sign': { down: 'some sign of a loss', up: 'some sign of a gain', short: 'some sign' },
  'too-early': { down: 'too early to say', up: 'too early to say', short: 'too early' },
  'no-sign': { down: 'no sign of change', up: 'no sign of change', short: 'no sign' },
  steady: { down: 'holding steady', up: 'holding steady', short: 'steady' },
  back: { down: 'back where it was', up: 'back where it was', short: 'back' },
  'one-fold': {
    down: 'one fold alone: measure it again',
    up: 'one fold alone: measure it again',
    short: 'one fold',
  },
}

/** A verdict as a coach says it: "real loss", "some sign of a gain", "holding steady". */
export function verdictSaid({ verdict, change }: Pick<Change, 'verdict' | 'change'>): string {
  return VERDICT_WORDS[verdict][change < 0 ? 'down' : 'up']
}

/** Odds as a number of times: "34", "1.4", "over 1,000". Below one: how much likelier no change is. */
export function oddsSaid(odds: number): string {
  const times = odds >= 1 ? odds : 1 / odds
  if (times > MOST_SAID) return 'over 1,000'
  return times >= 10 ? formatNumber(times, 0) : formatNumber(times, 1)
}

/** Odds in words: "34 times likelier if something changed than if nothing did". */
export function oddsSentence(odds: number): string {
  const said = oddsSaid(odds)
  const [likelier, other] = odds >= 1 ? ['something', 'nothing did'] : ['nothing', 'something did']
  return `${said} times likelier if ${likelier} changed than if ${other}`
}
