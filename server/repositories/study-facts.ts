import { joinLog, sessionPolicies, sessionState, valueOf } from '../../core/readings'
import { knownHands, scaleSaid, type StudyFacts, type StudyTurn } from '../../core/study'
import { studyEvidence, type ClientEvidence } from '../../core/following'
import type { KnownHand } from '../../core/error'
import { corrected } from '../../core/devices'
import { isFold, type SiteId } from '../../core/sites'
import { correctionOn, protocolOf } from '../../shared/checkin-facts'
import type { Caliper } from '../../shared/schemas/caliper'
import type { CountedStudy } from '../../shared/schemas/study'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Queryable } from '../db/database'
import { usePorts } from '../ports'
import { everyCaliper } from './calipers'
import { findCheckins } from './checkins'
import { findStudy, listFeeding, type StoredStudy } from './studies'

/** A finished turn's values as its set's policy reads them, less what its caliper was corrected for: folds mm, girths cm. */
function turnValues(
  { readings, strikes, skips, policies, ...record }: CheckinRecord,
  calipers: readonly Caliper[],
): Pick<StudyTurn, 'values' | 'readings'> {
  const protocol = protocolOf(record)
  const used = calipers.find(({ id }) => id === record.caliperId)
  const correction = used && correctionOn(used, record.day)
  const asIs = (site: SiteId, value: number) => (correction && isFold(site) ? corrected(value, correction) : value)
  const { sites } = sessionState(protocol, readings, strikes, skips, sessionPolicies(policies))
  const found: Pick<StudyTurn, 'values' | 'readings'> = { values: {}, readings: {} }
  for (const { site, value, live } of sites) {
    if (value === null) continue
    found.values[site] = asIs(site, value)
    found.readings[site] = live.map((reading) => asIs(site, valueOf(reading)))
  }
  return found
}

/** A stored study as core analyses it, from its finished turns. */
export async function studyFacts(db: Queryable, studioId: string, stored: StoredStudy): Promise<StudyFacts> {
  const done = stored.turns.filter(({ finished }) => finished)
  const records = await findCheckins(
    db,
    { studioId },
    done.map(({ checkinId }) => checkinId),
  )
  const calipers = await everyCaliper(db, { studioId })
  const byId = new Map(records.map((record) => [record.id, record]))
  const turns = done.flatMap(({ checkinId, personId, penId, trial }): StudyTurn[] => {
    const record = byId.get(checkinId)
    if (!record) return []
    const [first] = joinLog(record.readings, record.strikes).filter(({ struck }) => !struck)
    return [{ personId, penId, trial, startedAt: first?.takenAt ?? record.startedAt, ...turnValues(record, calipers) }]
  })
  return {
    kind: stored.kind,
    sites: stored.sites,
    penIds: stored.pens.map(({ id }) => id),
    referenceId: stored.referencePenId,
    turns,
  }
}

/** What a studio's closed studies say to the error model. */
export interface Studied {
  hands: KnownHand[]
  evidence: ClientEvidence[]
  /** Those it comes from. */
  studies: CountedStudy[]
}

/** Knowledge from studies is read anew after a change of one, and at least this often. */
const KEEP_MS = 10 * 60 * 1000
const SHELF = 'studied'

/** Everything closed studies say that is not left out; oldest first. */
export async function findStudied(db: Queryable, studioId: string, now = Date.now()): Promise<Studied> {
  const { shelf } = usePorts()
  const known = shelf.get<{ at: number; studied: Promise<Studied> }>(SHELF, studioId)
  if (known && now - known.at < KEEP_MS) return known.studied
  const studied = readStudied(db, studioId)
  shelf.put(SHELF, studioId, { at: now, studied })
  studied.catch(() => shelf.forget(SHELF, studioId))
  return studied
}

/** Whether a caliper's correction changed on a day or after it. */
function changedSince({ corrections }: Caliper, day: string): boolean {
  return corrections.some(({ fromDay }) => fromDay >= day)
}

async function readStudied(db: Queryable, studioId: string): Promise<Studied> {
  const found: Studied = { hands: [], evidence: [], studies: [] }
  const calipers = await everyCaliper(db, { studioId })
  for (const { id, closedOn } of await listFeeding(db, studioId)) {
    const stored = await findStudy(db, { studioId }, id)
    if (!stored) continue
    const facts = await studyFacts(db, studioId, stored)
    // Core knows pens; the record knows who they are.
    const nameOf = new Map(stored.pens.map((pen) => [pen.id, pen.staffId ?? pen.caliperId ?? pen.id]))
    const real = (penId: string) => nameOf.get(penId) ?? penId
    // What a caliper is corrected for since is taken off its folds already: the study speaks of it no more.
    const hands = knownHands(facts, { studyId: id, day: closedOn })
      .map((hand) => ({ ...hand, from: real(hand.from), to: real(hand.to) }))
      .filter(
        ({ from, to }) => !calipers.some((one) => (one.id === from || one.id === to) && changedSince(one, closedOn)),
      )
    found.hands.push(...hands)
    const said = scaleSaid(facts)
    const assessorId = stored.pens[0]?.staffId
    if (said.length > 0 && assessorId) found.evidence.push(studyEvidence(said, { assessorId, day: closedOn }))
    if (hands.length > 0 || said.length > 0)
      found.studies.push({ id, name: stored.name, kind: stored.kind, day: closedOn })
  }
  return found
}
