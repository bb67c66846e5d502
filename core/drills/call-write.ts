import { FOLDS, type FoldSiteId } from '../sites/folds'
import type { Random } from '../simulate/random'

/** One value that is called: right, or odd so that a recorder has to question it. */
export interface Call {
  site: FoldSiteId
  /** What was read last time, mm: what a recorder has beside the value. */
  lastMm: number
  calledMm: number
  odd: boolean
}

const SITES: readonly FoldSiteId[] = [
  'triceps',
  'subscapular',
  'chest',
  'midaxillary',
  'suprailiac',
  'abdominal',
  'thigh',
  'medial-calf',
]
export const CALLS = 8

/** Digits of a value to one decimal, the whole ones turned round: 12.5 becomes 21.5. Null where that changes nothing. */
function turnedRound(value: number): number | null {
  const whole = Math.floor(value)
  if (whole < 10 || whole > 99) return null
  const turned = (whole % 10) * 10 + Math.floor(whole / 10)
  return turned === whole ? null : turned + (value - whole)
}

/** Draws eight calls, two or three of them odd: a lost point, digits turned round, ten too many. At higher levels less so. */
export function drawCalls(random: Random, level: number): Call[] {
  const odd = new Set<number>()
  while (odd.size < (random.next() < 0.5 ? 2 : 3)) odd.add(Math.floor(random.next() * CALLS))
  return SITES.map((site, i): Call => {
    const lastMm = Math.round((7 + random.next() * 20) * 2) / 2
    const near = Math.max(3, Math.round((lastMm + random.normal()) * 2) / 2)
    if (!odd.has(i)) return { site, lastMm, calledMm: near, odd: false }
    const kind = random.next()
    const turned = turnedRound(near)
    const lost = near * 10
    const calledMm =
      kind < 0.4 && turned !== null && Math.abs(turned - lastMm) > 8 - level
        ? turned
        : kind < 0.7 && lost <= 75 && level < 4
          ? lost
          : near + (random.next() < 0.5 && near > 12 ? -1 : 1) * (11 - level)
    return { site, lastMm, calledMm, odd: true }
  })
}

/** What somebody did with a call: wrote a value, or questioned it. */
export type Answer = { kind: 'wrote'; mm: number } | { kind: 'questioned' }

/** How a round went: shares right, of all, of the odd caught, and how many good ones were questioned. */
export interface CallScore {
  percent: number
  caught: number
  odd: number
  needless: number
}

/** Scores a round: an odd one is right when questioned, any other when written as called. */
export function scoreCalls(calls: readonly Call[], answers: readonly Answer[]): CallScore {
  let [right, caught, needless] = [0, 0, 0]
  calls.forEach(({ odd, calledMm }, i) => {
    const answer = answers[i]
    const questioned = answer?.kind === 'questioned'
    if (odd && questioned) caught += 1
    if (!odd && questioned) needless += 1
    if (odd ? questioned : answer?.kind === 'wrote' && Math.abs(answer.mm - calledMm) < 0.05) right += 1
  })
  return {
    percent: calls.length === 0 ? 0 : (100 * right) / calls.length,
    caught,
    odd: calls.filter(({ odd }) => odd).length,
    needless,
  }
}

/** A value as it is spoken: "subscapular, twelve point five". */
export function spoken({ site, calledMm }: Call): string {
  return `${FOLDS[site].name}, ${calledMm.toFixed(1).replace(/\.0$/, '').replace('.', ' point ')}`
}
