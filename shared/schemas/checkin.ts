import { z } from 'zod'
import type { Choices } from '../../core/composition/facts'
import { CONDITIONS } from '../../core/composition/conditions'
import { conditionAnswers } from './condition-answers'
import {
  isChoosable,
  OWN_POLICIES,
  POLICIES,
  SOURCES,
  whyOf,
  type ChosenPolicies,
  type PolicyId,
  type Reading,
  type Remark,
  type Strike,
  type Why,
} from '../../core/readings'
import {
  FOLD_RANGE_MM,
  FOLDS,
  GIRTHS,
  SITES,
  WAY_IDS,
  type FoldSiteId,
  type GirthSiteId,
  type SiteId,
} from '../../core/sites'
import type { FixedEvent, NextDate } from '../../core/schedule/dates'
import { findProtocol } from '../../core/protocols'
import type { StudyKind } from '../../core/study/study'
import { HEIGHT_RANGE_CM, lengthToCm } from '../../core/units'
import { instant } from './dates'
import { girthWithin, weightWithin } from './measured'
import type { BookingBoard } from './booking'
import type { WaitingHandIn } from './link'
import type { StaffMember } from './account'
import type { Caliper } from './caliper'
import type { CaliperFault } from '../../core/devices/block'
import type { Suspension } from '../../core/safety/suspension'
import type { Client, ClientFigure } from './client'

const id = z.uuid('This needs an id made by the device.')

/** Conditions of a visit: only the known ones, only their known answers. */
const conditions = conditionAnswers(CONDITIONS)

const policyId = z
  .enum(Object.keys(POLICIES) as [PolicyId, ...PolicyId[]], { error: 'This way of reading is not known.' })
  .nullable()

/** What is settled before the first reading. */
const preparation = {
  assessorId: id.nullable().default(null),
  recorderId: id.nullable().default(null),
  caliperId: id.nullable().default(null),
  conditions: conditions.default({}),
  /** Reading policies where they are not the protocol's own. */
  policies: z.strictObject({ folds: policyId, girths: policyId }).default({ ...OWN_POLICIES }),
  withHeight: z.boolean({ error: 'Say whether height is measured.' }).default(false),
}

/** A published set of sites, or a version of a studio's own (known since it was made or since the start). */
const protocolId = z
  .string({ error: 'Choose a protocol.' })
  .max(60, 'Choose a protocol.')
  .refine((given) => findProtocol(given) !== null, 'Choose a protocol.')

export const startCheckinInput = z
  .strictObject({
    id,
    protocolId,
    startedAt: instant.refine(
      (at) => Date.parse(at) < Date.now() + 10 * 60 * 1000,
      'This time is still to come: check the clock of this device.',
    ),
    ...preparation,
  })
  .refine(
    ({ protocolId, policies }) => {
      const protocol = findProtocol(protocolId)
      return protocol === null || isChoosable(protocol, policies)
    },
    {
      path: ['policies'],
      message: 'This set of sites is not read in that way.',
    },
  )
export type StartCheckinInput = z.input<typeof startCheckinInput>

const foldSentence = `A fold lies between ${FOLD_RANGE_MM.low} and ${FOLD_RANGE_MM.high} mm.`
const common = {
  id,
  round: z.int('A round is a whole number.').min(1, 'Rounds count from 1.').max(20, 'There are at most 20 rounds.'),
  takenAt: instant,
  source: z.enum(SOURCES, { error: 'Say how the reading came in.' }),
  method: z.enum(WAY_IDS, { error: 'This way of lifting a fold is not known.' }).nullable().optional(),
}

const foldReading = z.strictObject({
  ...common,
  site: z.enum(Object.keys(FOLDS) as [FoldSiteId, ...FoldSiteId[]], { error: 'This site is not known.' }),
  value: z.number({ error: foldSentence }).min(FOLD_RANGE_MM.low, foldSentence).max(FOLD_RANGE_MM.high, foldSentence),
  unit: z.literal('mm', { error: 'Folds are in mm.' }),
})

const girthReading = girthWithin(
  z.strictObject({
    ...common,
    site: z.enum(Object.keys(GIRTHS) as [GirthSiteId, ...GirthSiteId[]], { error: 'This site is not known.' }),
    value: z.number({ error: 'A girth is a number.' }),
    unit: z.enum(['cm', 'in'], { error: 'A girth is in cm or in.' }),
  }),
)

const weightReading = weightWithin(
  z.strictObject({
    ...common,
    site: z.literal('weight'),
    value: z.number({ error: 'A weight is a number.' }),
    unit: z.enum(['kg', 'lb'], { error: 'A weight is in kg or lb.' }),
  }),
)

const heightReading = z
  .strictObject({
    ...common,
    site: z.literal('height'),
    value: z.number({ error: 'A height is a number.' }),
    unit: z.enum(['cm', 'in'], { error: 'A height is in cm or in.' }),
  })
  .refine(
    ({ value, unit }) => {
      const cm = lengthToCm(value, unit)
      return cm >= HEIGHT_RANGE_CM.low && cm <= HEIGHT_RANGE_CM.high
    },
    { path: ['value'], message: `A height lies between ${HEIGHT_RANGE_CM.low} and ${HEIGHT_RANGE_CM.high} cm.` },
  )

export const readingInput = z.discriminatedUnion('site', [foldReading, girthReading, weightReading, heightReading], {
  error: 'This site is not known.',
})
export const strikeInput = z.strictObject({ readingId: id, struckAt: instant })

const ownWords = z.string({ error: 'Please give a reason.' }).trim().max(300, 'At most 300 characters.')

/** A site left out: a known reason by its id, or `other` with words; bare words are taken for words of one's own. */
export const skipInput = z
  .strictObject({
    id,
    site: z.enum(Object.keys(SITES) as [SiteId, ...SiteId[]], { error: 'This site is not known.' }),
    reason: ownWords.min(1, 'Please give a reason.'),
    words: ownWords.default(''),
    at: instant,
  })
  .transform(({ reason, words, ...skip }, context) => {
    const why: Required<Why> = reason === 'other' ? { reason: 'other', words } : whyOf(reason)
    if (why.reason === 'other' && why.words === '') {
      context.addIssue({ code: 'custom', path: ['words'], message: 'Please give a reason.' })
    }
    return { ...skip, ...why }
  })
export const remarkInput = z.strictObject({
  id,
  readingId: id,
  words: z
    .string({ error: 'Please write the note.' })
    .trim()
    .min(1, 'Please write the note.')
    .max(500, 'At most 500 characters.'),
  at: instant,
})

/** Facts as a device sends them: any number at once, any of them again. */
export const eventsInput = z.strictObject({
  readings: z.array(readingInput).max(500, 'At most 500 readings at once.'),
  strikes: z.array(strikeInput).max(500, 'At most 500 strikes at once.'),
  skips: z.array(skipInput).max(100, 'At most 100 at once.').default([]),
  remarks: z.array(remarkInput).max(500, 'At most 500 notes at once.').default([]),
})
/** A site left out, as stored. */
export type SkipFact = z.output<typeof skipInput>
export type EventsInput = z.output<typeof eventsInput>

export const checkinChange = z.strictObject({
  keptWords: z.string().trim().max(4000, 'At most 4,000 characters.').nullable().optional(),
  finished: z.literal(true, { error: 'A check-in can be finished, not opened again.' }).optional(),
  note: z.string().max(4000, 'A note has at most 4,000 characters.').optional(),
  /** Another set of sites while it is under way; what has been read stays. */
  protocolId: protocolId.optional(),
  /** The person who writes, while it is under way; null: nobody else. */
  recorderId: id.nullable().optional(),
})

/** Why a check-in is to count for nothing. */
export const voidInput = z.strictObject({
  reason: z.string({ error: 'Please say why.' }).trim().min(1, 'Please say why.').max(300, 'At most 300 characters.'),
})

/** A check-in that counts for nothing any more: that it was, and why. */
export interface VoidedCheckin {
  id: string
  day: string
  reason: string
  at: string
  by: string
}

/** A check-in with every fact recorded in it. */
export interface CheckinRecord {
  id: string
  clientId: string
  protocolId: string
  side: 'right' | 'left'
  assessorId: string | null
  recorderId: string | null
  /** The recorder's name. */
  recorder: string | null
  caliperId: string | null
  conditions: Record<string, string>
  policies: ChosenPolicies
  withHeight: boolean
  startedAt: string
  /** The calendar day it was where the studio is. */
  day: string
  finishedAt: string | null
  startedBy: string
  note: string
  /** The reading of this check-in in words, as the coach kept it; null: not kept. */
  keptWords: string | null
  /** A turn of this study, at these of the set's sites: none of the client's visits. */
  studyId?: string | null
  studySites?: SiteId[] | null
  readings: Reading[]
  strikes: Strike[]
  skips: SkipFact[]
  remarks: Remark[]
}

/** What the measuring screen works from. */
export interface MeasuringFacts {
  client: Client
  checkin: CheckinRecord
  /** The check-in before this one, for "last time". */
  last: CheckinRecord | null
  /** Equation and conversion this client is followed with; null: the protocol's own. */
  choices: Choices | null
  /** The caliper in use; null: not noted. */
  caliper: Caliper | null
  /** The client's own landmarks by site. */
  landmarks: Record<string, string>
  /** Takes part in a challenge, or a turn of a study: what was read before stays hidden. */
  blind: boolean
  /** The study this is a turn of. */
  study?: { id: string; name: string; kind: StudyKind; trial: 1 | 2; penName: string } | null
}

/** What the screen before measuring works from. */
export interface PrepareFacts {
  client: Client
  last: CheckinRecord | null
  openCheckinId: string | null
  choices: Choices | null
  calipers: Caliper[]
  staff: StaffMember[]
  /** The client's own landmarks by site. */
  landmarks: Record<string, string>
  /** Takes part in a challenge: what was read before stays hidden. */
  blind: boolean
}

/** One line of the Floor. */
export interface FloorLine {
  clientId: string
  clientName: string
  /** Who was called to write in it, if anyone. */
  recorderId: string | null
  checkinId: string
  at: string
  /** The calendar day it was where the studio is. */
  day: string
  readings: number
}

/** Today: what is open, what is due, what will be within two weeks, what was finished lately. */
export interface Floor {
  open: FloorLine[]
  due: { clientId: string; clientName: string; lastDay: string | null; next: NextDate; overdue: boolean }[]
  soon: { clientId: string; clientName: string; dueOn: string; next: NextDate }[]
  /** Days that do not move, the nearest first. */
  events: { clientId: string; clientName: string; event: FixedEvent }[]
  /** With what became of the client since the pinned start, at their newest check-in: of the figure that leads. */
  finished: (FloorLine & { change: ClientFigure['change']; figure: 'sum' | 'fat' | null })[]
  /** Bookings of the week of today, Monday to Sunday. */
  week: BookingBoard
  /** Clients with a visit from today on: they are due, and cared for. */
  booked: string[]
  /** Weeks handed in from afar that nobody has looked at. */
  handIns: WaitingHandIn[]
  /** Calipers that failed their last check or whose check is overdue; days null: never checked. */
  calipers: { id: string; name: string; days: number | null; fault?: CaliperFault }[]
  /** A night's backup was missed: for leads; the day of the last good one, null: there is none. */
  backupMissed?: { lastAt: string | null; ahead: boolean } | null
  /** To leads: what the last backup found missing or unreadable in the database. */
  damage?: string | null
  /** To leads: why the last backup could not be restored as a trial. */
  trialFault?: string | null
  /** What was agreed and does not count until a coach decides. */
  suspended: { clientId: string; clientName: string; suspensions: Suspension[] }[]
  /** Clients of one assessor who moved together, each in a sentence. */
  drifts: { assessorId: string; said: string }[]
}
