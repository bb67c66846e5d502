import { z } from 'zod'
import type { StudyKind, StudyResult } from '../../core/study/study'
import { STUDY_KINDS } from '../../core/study/study'
import { SITES, type SiteId } from '../../core/sites'
import { findProtocol } from '../../core/protocols'
import { instant, pastDay } from './dates'

const id = z.uuid('This needs an id made by the device.')

/** Most pens in a study: their orders are balanced, and each costs everybody a turn. */
export const MOST_PENS = 6
/** Most people in a study. */
export const MOST_STUDIED = 60

const pen = z
  .strictObject({
    id,
    staffId: id.nullable().default(null),
    caliperId: id.nullable().default(null),
    /** The day this assessor agreed to be compared; null: to be noted before their first turn. */
    agreedOn: pastDay('Give the day they agreed.').nullable().default(null),
  })
  .refine(({ staffId, caliperId }) => (staffId === null) !== (caliperId === null), {
    message: 'Choose an assessor or a caliper.',
  })

/** A study as it is set up. */
export const studyInput = z
  .strictObject({
    id,
    name: z
      .string({ error: 'Please name the study.' })
      .trim()
      .min(1, 'Please name the study.')
      .max(80, 'A name has at most 80 characters.'),
    kind: z.enum(STUDY_KINDS, { error: 'One assessor again, assessors side by side, or calipers.' }),
    protocolId: z
      .string({ error: 'Choose a set of sites.' })
      .max(60, 'Choose a set of sites.')
      .refine((given) => findProtocol(given) !== null, 'Choose a set of sites.'),
    sites: z
      .array(z.enum(Object.keys(SITES) as [SiteId, ...SiteId[]], { error: 'This site is not known.' }))
      .min(1, 'Choose at least one site.')
      .max(40, 'Too many sites.'),
    pens: z.array(pen).min(1, 'Choose who measures.').max(MOST_PENS, `At most ${MOST_PENS} are compared at once.`),
    referencePenId: id,
    group: z.boolean().default(false),
  })
  .refine(({ pens, referencePenId }) => pens.some((one) => one.id === referencePenId), {
    path: ['referencePenId'],
    message: 'Choose whom the others are compared with.',
  })
  .refine(({ kind, pens }) => (kind === 'repeat' ? pens.length === 1 : pens.length >= 2), {
    path: ['pens'],
    message: 'One assessor measures again; side by side takes two or more.',
  })
  .refine(({ kind, pens }) => pens.every((one) => (kind === 'calipers') === (one.caliperId !== null)), {
    path: ['pens'],
    message: 'Calipers are compared with calipers, assessors with assessors.',
  })
  .refine(({ pens }) => new Set(pens.map((one) => one.staffId ?? one.caliperId)).size === pens.length, {
    path: ['pens'],
    message: 'Somebody is named twice.',
  })
  .refine(
    ({ protocolId, sites }) => {
      const set = findProtocol(protocolId)
      return set === null || sites.every((site) => set.sites.includes(site))
    },
    { path: ['sites'], message: 'A site is not in this set.' },
  )
  .transform((given) => ({
    ...given,
    // In the set's own order, each once.
    sites: (findProtocol(given.protocolId)?.sites ?? []).filter((site) => given.sites.includes(site)),
  }))
export type StudyInput = z.input<typeof studyInput>
export type NewStudy = z.output<typeof studyInput>

export const studyPersonInput = z.strictObject({ id, clientId: z.uuid('Choose a client.') })

export const agreementInput = z.strictObject({ agreedOn: pastDay('Give the day they agreed.') })

export const turnInput = z.strictObject({ id, personId: id, penId: id, startedAt: instant })
export type TurnInput = z.input<typeof turnInput>

/** Left out of the error model with a reason; null: counted again. */
export const leaveOutInput = z.strictObject({
  reason: z
    .string({ error: 'Please say why.' })
    .trim()
    .min(1, 'Please say why.')
    .max(300, 'At most 300 characters.')
    .nullable(),
})

/** A study as lists show it. */
export interface StudyLine {
  id: string
  name: string
  kind: StudyKind
  at: string
  closedOn: string | null
  leftOut: boolean
  people: number
  turnsDone: number
  turnsWanted: number
  pens: string[]
}

/** A closed study that counts in the error model. */
export interface CountedStudy {
  id: string
  name: string
  kind: StudyKind
  day: string
}

/** One turn of a study: none of what was read, until it is closed. */
export interface StudyTurnRecord {
  checkinId: string
  personId: string
  penId: string
  trial: 1 | 2
  startedAt: string
  finished: boolean
}

/** A study with everybody in it. */
export interface StudyRecord {
  id: string
  name: string
  kind: StudyKind
  protocolId: string
  sites: SiteId[]
  referencePenId: string
  group: boolean
  at: string
  closedOn: string | null
  leftOutReason: string | null
  pens: { id: string; staffId: string | null; caliperId: string | null; name: string; agreedOn: string | null }[]
  /** `clientId` null, the name a number: clients the reader does not see. */
  people: { id: string; clientId: string | null; name: string }[]
  turns: StudyTurnRecord[]
  /** What it says; null until it is closed. */
  result: StudyResult | null
}
