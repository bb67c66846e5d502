import { markOf, TEM_MARKS } from '../error'
import { isFold, type SiteId } from '../sites'
import { agreementOf, ratioBias, type Agreement, type RatioBias, type WithInterval } from './agreement'
import { intraclass } from './intraclass'
import { temBetween, temOfPairs, type TemResult } from './tem'

/** What is compared: one assessor with themselves, assessors, or calipers. */
export const STUDY_KINDS = ['repeat', 'assessors', 'calipers'] as const
export type StudyKind = (typeof STUDY_KINDS)[number]

/** One person measured once by one pen (an assessor or a caliper): folds mm, girths cm. */
export interface StudyTurn {
  personId: string
  penId: string
  trial: 1 | 2
  /** ISO instant its first reading was taken. */
  startedAt: string
  /** Each site's value as the set's policy reads it, and the readings it stands on. */
  values: Partial<Record<SiteId, number>>
  readings: Partial<Record<SiteId, readonly number[]>>
}

/** What a study is analysed from. Turns that are not finished are left out beforehand. */
export interface StudyFacts {
  kind: StudyKind
  sites: readonly SiteId[]
  penIds: readonly string[]
  /** Whom the others are held against. */
  referenceId: string
  turns: readonly StudyTurn[]
}

/** How one person's repeats stand against the usual marks for folds and girths. */
export type Standing = 'trained' | 'learning' | 'beyond'

/** A repeat study at one site. */
export interface RepeatSite {
  site: SiteId
  /** Of a turn's value, marks wiped in between: what a visit errs by apart from the day. */
  visit: TemResult | null
  /** Of one reading, from readings within a turn. */
  reading: TemResult | null
  /** What the mark found anew adds, as a share of the value. Null where it is not told apart from zero by the estimate. */
  markShare: number | null
  standing: Standing | null
  /** Whether the whole interval of `visit` lies on that side of the mark. */
  sure: boolean
}

/** A pen against the reference at one site. */
export interface PenAtSite {
  penId: string
  ratio: RatioBias | null
  agreement: Agreement | null
  /** Reference and pen, person by person. */
  pairs: (readonly [number, number])[]
}

/** A side-by-side study at one site. */
export interface SideSite {
  site: SiteId
  people: number
  pens: PenAtSite[]
  between: TemResult | null
  intraclass: WithInterval | null
}

/** What speaks against relying on a study, as codes (words: `doubtWords`). */
export type StudyDoubt =
  | { code: 'none-finished' }
  | { code: 'few-people'; people: number }
  | { code: 'one-site' }
  | { code: 'all-equal'; site: SiteId }
  | { code: 'same-minute'; personId: string }
  | { code: 'too-soon'; personId: string; minutes: number }

/** What a study says. */
export interface StudyResult {
  /** People measured by everybody (repeat: twice). */
  people: number
  repeats: RepeatSite[]
  sides: SideSite[]
  doubts: StudyDoubt[]
}

/** People a study needs at least, and for an accreditation (common practice). */
export const PEOPLE_WANTED = { least: 10, accreditation: 20 } as const
/** Two turns of one person closer than this cannot have had their marks wiped and drawn anew, minutes. */
const MARKS_ANEW_MINUTES = 5

/** A technical error against the usual marks, and whether its interval leaves no doubt. */
export function standingOf(site: SiteId, { percent, percentLow, percentHigh }: TemResult) {
  const marks = TEM_MARKS[isFold(site) ? 'fold' : 'girth']
  if (percent === null || percentLow === null || percentHigh === null) return { standing: null, sure: false }
  const of = (one: number): Standing =>
    one <= marks.trained ? 'trained' : one <= marks.learning ? 'learning' : 'beyond'
  return { standing: of(percent), sure: of(percentLow) === of(percentHigh) }
}

/** Turns of people, by person, those only who have every wanted turn. */
function completePeople({ kind, penIds, turns }: StudyFacts): Map<string, StudyTurn[]> {
  const wanted = kind === 'repeat' ? 2 : penIds.length
  const byPerson = new Map<string, StudyTurn[]>()
  for (const turn of turns) byPerson.set(turn.personId, [...(byPerson.get(turn.personId) ?? []), turn])
  return new Map([...byPerson].filter(([, own]) => own.length >= wanted))
}

function repeatAt(site: SiteId, people: readonly StudyTurn[][]): RepeatSite {
  const pairs: [number, number][] = []
  const within: [number, number][] = []
  for (const turns of people) {
    const [first, second] = [1, 2].map((trial) => turns.find((turn) => turn.trial === trial))
    const [a, b] = [first?.values[site], second?.values[site]]
    if (a !== undefined && b !== undefined) pairs.push([a, b])
    for (const turn of turns) {
      const [one, other] = turn.readings[site] ?? []
      if (one !== undefined && other !== undefined) within.push([one, other])
    }
  }
  const [visit, reading] = [temOfPairs(pairs), temOfPairs(within)]
  const readings = people.flat().map((turn) => turn.readings[site]?.length ?? 0)
  const each = readings.reduce((sum, one) => sum + one, 0) / Math.max(1, readings.filter((one) => one > 0).length)
  const left = visit && visit.mean > 0 ? visit.tem ** 2 - (reading ? reading.tem ** 2 / Math.max(1, each) : 0) : null
  const markShare = left !== null && left > 0 && reading && visit ? Math.sqrt(left) / visit.mean : null
  const stands = visit ? standingOf(site, visit) : { standing: null, sure: false }
  return { site, visit, reading, markShare, ...stands }
}

function sideAt(site: SiteId, { penIds, referenceId }: StudyFacts, people: readonly StudyTurn[][]): SideSite {
  const table = people.flatMap((turns) => {
    const row = penIds.map((pen) => turns.find(({ penId }) => penId === pen)?.values[site])
    return row.every((value) => value !== undefined) ? [row as number[]] : []
  })
  const reference = penIds.indexOf(referenceId)
  const pens = penIds.flatMap((penId, j) => {
    if (j === reference) return []
    const pairs = table.map((row) => [row[reference] as number, row[j] as number] as const)
    return [{ penId, ratio: ratioBias(pairs), agreement: agreementOf(pairs), pairs }]
  })
  return { site, people: table.length, pens, between: temBetween(table), intraclass: intraclass(table) }
}

function doubtsOf(facts: StudyFacts, people: ReadonlyMap<string, StudyTurn[]>): StudyDoubt[] {
  if (people.size === 0) return [{ code: 'none-finished' }]
  const doubts: StudyDoubt[] = []
  if (people.size < PEOPLE_WANTED.least) doubts.push({ code: 'few-people', people: people.size })
  if (facts.sites.length === 1) doubts.push({ code: 'one-site' })
  for (const site of facts.sites) {
    const values = [...people.values()].flat().flatMap((turn) => turn.values[site] ?? [])
    if (people.size > 1 && new Set(values).size === 1) doubts.push({ code: 'all-equal', site })
  }
  for (const [personId, turns] of people) {
    const times = turns.map(({ startedAt }) => Date.parse(startedAt)).sort((a, b) => a - b)
    const apart = Math.min(...times.slice(1).map((time, i) => (time - (times[i] as number)) / 60_000))
    if (apart < 1) doubts.push({ code: 'same-minute', personId })
    else if (facts.kind === 'repeat' && apart < MARKS_ANEW_MINUTES)
      doubts.push({ code: 'too-soon', personId, minutes: Math.floor(apart) })
  }
  return doubts
}

/** Turns a result may stand on: those of a person measured twice in the same minute cannot be. */
function countedPeople(people: ReadonlyMap<string, StudyTurn[]>, doubts: readonly StudyDoubt[]): StudyTurn[][] {
  const barred = new Set(doubts.flatMap((doubt) => (doubt.code === 'same-minute' ? [doubt.personId] : [])))
  return [...people].flatMap(([id, turns]) => (barred.has(id) ? [] : [turns]))
}

/** People whose turns are all there, without those who were measured twice in one minute. */
export function peopleCounted(facts: StudyFacts): StudyTurn[][] {
  const people = completePeople(facts)
  return countedPeople(people, doubtsOf(facts, people))
}

/** Analyses a study by site. Nothing is divided by zero: what cannot be known yet is null. */
export function analyseStudy(facts: StudyFacts): StudyResult {
  const people = completePeople(facts)
  const doubts = doubtsOf(facts, people)
  const counted = countedPeople(people, doubts)
  const repeat = facts.kind === 'repeat'
  return {
    people: counted.length,
    repeats: repeat ? facts.sites.map((site) => repeatAt(site, counted)) : [],
    sides: repeat ? [] : facts.sites.map((site) => sideAt(site, facts, counted)),
    doubts,
  }
}

/** Smallest standard error, as a share, that values read to an instrument's marks can have in n pairs. */
export function leastError(site: SiteId, mean: number, pairs: number): number {
  return markOf(site) / Math.sqrt(12) / mean / Math.sqrt(Math.max(1, pairs) / 2)
}
