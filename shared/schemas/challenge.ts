import { z } from 'zod'
import { CHALLENGE_DAYS, type Barred, type Breach, type Standing } from '../../core/challenge'
import { daysBetween } from '../../core/calendar'
import { day, pastDay } from './dates'

const id = z.uuid('This needs an id made by the device.')

/** A challenge as it is set up; nothing of it changes afterwards. */
export const challengeInput = z
  .strictObject({
    id,
    name: z
      .string({ error: 'Please name the challenge.' })
      .trim()
      .min(1, 'Please name the challenge.')
      .max(80, 'A name has at most 80 characters.'),
    startsOn: day('Give the first day.'),
    endsOn: day('Give the last day.'),
    figure: z.enum(['sum', 'fat'], { error: 'The sum of folds or fat mass.' }),
    categories: z.enum(['none', 'sex', 'start'], { error: 'None, women and men, or by the start.' }),
    teams: z
      .array(z.string().trim().min(1, 'A team has a name.').max(40, 'A team’s name has at most 40 characters.'))
      .max(12, 'At most twelve teams.')
      .refine((names) => new Set(names).size === names.length, 'Two teams have the same name.')
      .default([]),
    prizeRule: z.enum(['share', 'draw'], { error: 'Shared, or by lot.' }),
    /** The page on fairness and local rules was read. */
    accepted: z.literal(true, { error: 'Please read what a challenge needs, and accept it.' }),
  })
  .refine(({ startsOn, endsOn }) => daysBetween(startsOn, endsOn) >= CHALLENGE_DAYS.low, {
    path: ['endsOn'],
    message: `A challenge lasts ${CHALLENGE_DAYS.low} days or more: less is water.`,
  })
  .refine(({ startsOn, endsOn }) => daysBetween(startsOn, endsOn) <= CHALLENGE_DAYS.high, {
    path: ['endsOn'],
    message: 'A challenge lasts half a year at most.',
  })
export type ChallengeInput = z.output<typeof challengeInput>

/** Somebody who is entered, with what they agreed to. */
export const entryInput = z
  .strictObject({
    id,
    clientId: z.uuid('There is no such client.'),
    shownAs: z.enum(['name', 'alias', 'hidden'], { error: 'By name, by an alias, or hidden.' }),
    alias: z.string().trim().max(40, 'An alias has at most 40 characters.').default(''),
    team: z.string().trim().max(40).nullable().default(null),
    consentOn: pastDay('Give the day they agreed.'),
  })
  .refine(({ shownAs, alias }) => shownAs !== 'alias' || alias !== '', { path: ['alias'], message: 'Give the alias.' })
export type EntryInput = z.output<typeof entryInput>

/** A challenge as lists show it. */
export interface ChallengeRecord extends Omit<ChallengeInput, 'accepted'> {
  hasBoard: boolean
  closedAt: string | null
  entries: number
}

/** Somebody who takes part, as their coach sees it. */
export interface EntryRecord {
  id: string
  /** Null: the client of a coach whose clients the reader does not see. */
  clientId: string | null
  clientName: string
  shownAs: EntryInput['shownAs']
  alias: string
  team: string | null
  category: string
  consentOn: string
  leftAt: string | null
  first: string | null
  last: string | null
  /** Days between the two, and whether nothing counts yet for what is not as it has to be. */
  breaches: Breach[]
  /** Why they do not count until a coach decides; null: nothing of the kind. */
  suspended: string | null
  /** Whether loss beyond 1 % of weight a week was left out. */
  paced: boolean
  runner: { change: number; sd: number; freedom: number; counted: number } | null
}

/** A challenge with everybody in it; the standing is computed from it, beside the page. */
export interface ChallengeFacts {
  challenge: ChallengeRecord
  entries: EntryRecord[]
  /** Who could be entered, and who not, with why: for their coach. */
  candidates: { id: string; name: string; barred: Barred | null }[]
  /** Once it is closed: those the prize goes to. */
  winners: string[]
}

export const boardInput = z.strictObject({
  token: z.string({ error: 'This address is not whole.' }).regex(/^[\w-]{43}$/, 'This address is not whole.'),
})

/** What a wall shows: shares and chances only. Nothing about bodies, and nobody who is hidden. */
export interface Board {
  studioName: string
  name: string
  startsOn: string
  endsOn: string
  today: string
  closed: boolean
  groups: { name: string; rows: { name: string; place: number | null; share: number; first: number }[] }[]
  /** How many take part without being shown. */
  hidden: number
}

/** A group's standing with its name. */
export interface GroupStanding {
  name: string
  standings: Standing[]
}
