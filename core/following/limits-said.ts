import { formatNumber } from '../units'
import type { Change } from './change'
import type { Noise } from './noise'
import { unitOf } from './change-row'

/** Others with five check-ins and more from which a studio tells about as soon as a large one. */
const ENOUGH_OTHERS = 10
/** Weekly check-ins a studio of as many others takes for 0.2 kg of fat a week (`npm run bench:truth`). */
const SOONER = '12 to 15'
const SI = { mass: 'kg', length: 'cm' } as const
/** Beyond so many check-ins nothing is said. */
const OVER = 27

/** What is said of a studio and a client. */
export interface LimitsAsked {
  noise: Noise
  /** A loss a week, as it is said, and the check-in by which it would be sure with one a week; null: over 27. */
  paceSaid: string
  visits: number | null
  /** The change of the figure that leads; null: none yet. */
  leading: Change | null
}

/** What cannot be had by any method, with a studio's own numbers: sentences for How sure. */
export function limitsSaid({ noise, paceSaid, visits, leading }: LimitsAsked): string[] {
  const { clients, followed } = noise.learntFrom
  const from =
    clients === 0 ? 'Learnt from nobody yet' : `Learnt from ${clients} other ${clients === 1 ? 'client' : 'clients'}`
  const shows = `a loss of ${paceSaid} a week usually shows after about ${visits ?? `over ${OVER}`} weekly check-ins`
  const later = followed < ENOUGH_OTHERS ? `; after ${SOONER} once ten clients have been measured five times` : ''
  const hidden = leading && leading.verdict !== 'real' ? Math.max(Math.abs(leading.low), Math.abs(leading.high)) : null
  return [
    `${from}: ${shows}${later}.`,
    'Real means that the readings moved. A hand that drifts slowly looks the same: only a steady person measured again tells the two apart.',
    ...(leading && hidden !== null
      ? [
          `A change of up to ${formatNumber(hidden)} ${unitOf(leading.figure, SI).differenceUnit} either way may still hide in these readings.`,
        ]
      : []),
  ]
}
