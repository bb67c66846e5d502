import { ASSUMED_NOISES, judgeCase, type Family, type Noises, type StudioNoise } from '../../core/following'
import type { Day } from '../../core/calendar'
import type { ClientFigure } from '../../shared/schemas/client'
import type { Followed, ListFigure, MadeLine } from './followed-clients'
import { noisesUntil } from './noise-times'

/** Noises of a line are those of the noise in use and of the next one. */
const MOST_MADE = 2

/** The line of a client judged with a noise; kept with what is kept of the client. */
export function lineOf(id: string, own: Followed, noise: StudioNoise): MadeLine {
  const known = own.made.get(noise)
  if (known) return known
  const families: readonly Family[] = ['sum', 'fat', 'lean']
  const held = own.cases.length > 0 ? noisesUntil(noise, id, own.days, { newest: families, before: families }) : []
  const noisesOn = (day: Day): Noises => ({ ...ASSUMED_NOISES, ...held.findLast(({ until }) => until <= day)?.noises })
  const noises = noisesOn(own.days.at(-1) ?? '')
  const figure = (one: ListFigure): ClientFigure | null => {
    const found = own.cases.find((each) => each.figure === one)
    const change = found && judgeCase(found, noises, { share: own.share, noisesOn, worthwhile: own.worthwhile })
    const value = change?.now ?? own.values[one]
    if (value === undefined) return null
    if (!change) return { value, change: null }
    const { then, now, low, high, odds, verdict, visits, error, noise: learnt } = change
    const row = {
      figure: one,
      then,
      now,
      change: change.change,
      verdict,
      visits,
      error,
      noise: { clients: learnt.clients },
    }
    return { value, change: { ...row, low, high, odds, since: found.days[0] ?? '' } }
  }
  const line: MadeLine = {
    id,
    lastCheckinAt: own.lastCheckinAt,
    lastDay: own.lastDay,
    checkins: own.checkins,
    openCheckinId: own.openCheckinId,
    fat: figure('fat'),
    lean: figure('lean'),
    sum: figure('sum'),
  }
  own.made = new Map([...[...own.made].slice(1 - MOST_MADE), [noise, line]])
  return line
}
