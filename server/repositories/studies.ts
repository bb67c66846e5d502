import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import type { NewStudy, StudyLine, StudyRecord, StudyTurnRecord } from '../../shared/schemas/study'
import type { Queryable, Transaction } from '../db/database'
import { caliper, checkin, client, staff, study, studyPen, studyPerson, studyTurn } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { ofRow } from './of-row'
import { seenBy } from './seen-by'
import type { InStudio, SignedIn } from './staff'

const penName = sql<string>`coalesce(${staff.name}, ${caliper.name})`

/** A study without what it says. */
export type StoredStudy = Omit<StudyRecord, 'result'>

/** A studio's studies, the newest first. */
export async function listStudies(db: Queryable, { studioId }: InStudio): Promise<StudyLine[]> {
  const people = sql<number>`(select count(*)::int from ${studyPerson} where ${studyPerson.studyId} = ${ofRow(study.id)})`
  const turnsDone = sql<number>`(select count(*)::int from ${studyTurn} join ${checkin} on ${ofRow(checkin.id)} = ${studyTurn.checkinId}
    where ${ofRow(studyTurn.studyId)} = ${ofRow(study.id)} and ${checkin.finishedAt} is not null and ${checkin.voidedAt} is null)`
  const rows = await db
    .select({
      id: study.id,
      name: study.name,
      kind: study.kind,
      at: study.at,
      closedOn: study.closedOn,
      leftOut: sql<boolean>`${study.leftOutAt} is not null`,
      people,
      turnsDone,
    })
    .from(study)
    .where(eq(study.studioId, studioId))
    .orderBy(desc(study.at), desc(study.id))
    .limit(200)
  const pens = await pensOf(
    db,
    rows.map(({ id }) => id),
  )
  return rows.map((row) => {
    const own = pens.filter(({ studyId }) => studyId === row.id).map(({ name }) => name)
    return { ...row, pens: own, turnsWanted: row.people * (row.kind === 'repeat' ? 2 : own.length) }
  })
}

async function pensOf(db: Queryable, studyIds: string[]) {
  if (studyIds.length === 0) return []
  return db
    .select({
      studyId: studyPen.studyId,
      id: studyPen.id,
      staffId: studyPen.staffId,
      caliperId: studyPen.caliperId,
      name: penName,
      agreedOn: studyPen.agreedOn,
    })
    .from(studyPen)
    .leftJoin(staff, eq(staff.id, studyPen.staffId))
    .leftJoin(caliper, eq(caliper.id, studyPen.caliperId))
    .where(inArray(studyPen.studyId, studyIds))
    .orderBy(asc(studyPen.place))
}

/** Turns of studies that count: not voided. */
export async function turnsOf(db: Queryable, studyIds: string[]): Promise<(StudyTurnRecord & { studyId: string })[]> {
  if (studyIds.length === 0) return []
  return db
    .select({
      studyId: studyTurn.studyId,
      checkinId: studyTurn.checkinId,
      personId: studyTurn.personId,
      penId: studyTurn.penId,
      trial: studyTurn.trial,
      startedAt: checkin.startedAt,
      finished: sql<boolean>`${checkin.finishedAt} is not null`,
    })
    .from(studyTurn)
    .innerJoin(checkin, eq(checkin.id, studyTurn.checkinId))
    .where(and(inArray(studyTurn.studyId, studyIds), isNull(checkin.voidedAt)))
    .orderBy(asc(checkin.startedAt))
}

/** One study of this studio with its pens, people and turns, or null. */
export async function findStudy(db: Queryable, who: InStudio, id: string): Promise<StoredStudy | null> {
  const [row] = await db
    .select({
      id: study.id,
      name: study.name,
      kind: study.kind,
      protocolId: study.protocolId,
      sites: study.sites,
      referencePenId: study.referencePenId,
      group: study.group,
      at: study.at,
      closedOn: study.closedOn,
      leftOutReason: study.leftOutReason,
    })
    .from(study)
    .where(and(eq(study.id, id), eq(study.studioId, who.studioId)))
  if (!row) return null
  const seen = seenBy(who)
  const people = await db
    .select({
      id: studyPerson.id,
      // Clients somebody does not see stay without a name and an id, in a study as elsewhere.
      clientId: seen
        ? sql<string | null>`case when ${seen} then ${studyPerson.clientId} end`
        : sql<string | null>`${studyPerson.clientId}`,
      name: seen ? sql<string | null>`case when ${seen} then ${client.name} end` : sql<string | null>`${client.name}`,
    })
    .from(studyPerson)
    .innerJoin(client, eq(client.id, studyPerson.clientId))
    .where(eq(studyPerson.studyId, id))
    .orderBy(asc(studyPerson.place))
  const pens = (await pensOf(db, [id])).map(({ studyId: _, ...pen }) => pen)
  const turns = (await turnsOf(db, [id])).map(({ studyId: _, ...turn }) => turn)
  const named = people.map((person, i) => ({ ...person, name: person.name ?? `Person ${i + 1}` }))
  return { ...row, pens, people: named, turns }
}

/** Stores a study with its pens; sending it twice stores one. Throws IdTaken. */
export async function addStudy(tx: Transaction, who: SignedIn, { pens, ...input }: NewStudy): Promise<number> {
  const row = { ...input, studioId: who.studioId, madeBy: who.staffId }
  const added = await storeOnce(
    tx,
    study,
    study.id,
    [row],
    ['studioId', 'name', 'kind', 'protocolId', 'sites', 'referencePenId', 'group'],
  )
  await storeOnce(
    tx,
    studyPen,
    studyPen.id,
    pens.map((pen, place) => ({ ...pen, place, studyId: input.id })),
    ['studyId', 'place', 'staffId', 'caliperId'],
  )
  return added
}

/** Locks a study for what is about to change in it: two tablets take turns. */
export async function holdStudy(tx: Transaction, id: string): Promise<void> {
  await tx.select({ id: study.id }).from(study).where(eq(study.id, id)).for('update')
}

/** Adds somebody at the end; sending it twice adds them once. Throws IdTaken. */
export async function addStudyPerson(
  tx: Transaction,
  studyId: string,
  person: { id: string; clientId: string },
): Promise<number> {
  const [last] = await tx
    .select({ place: sql<number>`coalesce(max(${studyPerson.place}) + 1, 0)` })
    .from(studyPerson)
    .where(eq(studyPerson.studyId, studyId))
  const row = { ...person, studyId, place: last?.place ?? 0 }
  return storeOnce(tx, studyPerson, studyPerson.id, [row], ['studyId', 'clientId'])
}

/** Takes somebody out again who has no turn. False when they have one, or are not in it. */
export async function dropStudyPerson(tx: Transaction, studyId: string, personId: string): Promise<boolean> {
  const held = await tx
    .select({ id: studyTurn.checkinId })
    .from(studyTurn)
    .where(eq(studyTurn.personId, personId))
    .limit(1)
  if (held.length > 0) return false
  const gone = await tx
    .delete(studyPerson)
    .where(and(eq(studyPerson.id, personId), eq(studyPerson.studyId, studyId)))
    .returning({ id: studyPerson.id })
  return gone.length > 0
}

/** Notes the day an assessor agreed to be compared. False when this is no pen of the study. */
export async function noteAgreement(
  tx: Transaction,
  studyId: string,
  penId: string,
  agreedOn: string,
): Promise<boolean> {
  const noted = await tx
    .update(studyPen)
    .set({ agreedOn })
    .where(and(eq(studyPen.id, penId), eq(studyPen.studyId, studyId)))
    .returning({ id: studyPen.id })
  return noted.length > 0
}

/** Notes that a check-in is this turn. */
export async function addTurn(tx: Transaction, turn: typeof studyTurn.$inferInsert): Promise<void> {
  await tx.insert(studyTurn).values(turn)
}

/** The study a check-in is a turn of, with which; null for a visit. */
export async function findTurn(db: Queryable, checkinId: string) {
  const [row] = await db
    .select({
      id: study.id,
      name: study.name,
      kind: study.kind,
      trial: studyTurn.trial,
      penName,
    })
    .from(studyTurn)
    .innerJoin(study, eq(study.id, studyTurn.studyId))
    .innerJoin(studyPen, eq(studyPen.id, studyTurn.penId))
    .leftJoin(staff, eq(staff.id, studyPen.staffId))
    .leftJoin(caliper, eq(caliper.id, studyPen.caliperId))
    .where(eq(studyTurn.checkinId, checkinId))
  return row ?? null
}

/** Closes a study. False when it was closed before. */
export async function closeStudy(tx: Transaction, id: string, closedOn: string): Promise<boolean> {
  const closed = await tx
    .update(study)
    .set({ closedAt: new Date().toISOString(), closedOn })
    .where(and(eq(study.id, id), isNull(study.closedAt)))
    .returning({ id: study.id })
  return closed.length > 0
}

/** Leaves a study out of the error model, or takes it in again. */
export async function leaveStudyOut(tx: Transaction, id: string, reason: string | null): Promise<void> {
  const at = reason === null ? null : new Date().toISOString()
  await tx.update(study).set({ leftOutAt: at, leftOutReason: reason }).where(eq(study.id, id))
}

/** Ids of closed studies that count in the error model, oldest first. */
export async function listFeeding(db: Queryable, studioId: string): Promise<{ id: string; closedOn: string }[]> {
  const rows = await db
    .select({ id: study.id, closedOn: study.closedOn })
    .from(study)
    .where(and(eq(study.studioId, studioId), isNotNull(study.closedOn), isNull(study.leftOutAt)))
    .orderBy(asc(study.closedAt), asc(study.id))
  return rows.flatMap(({ id, closedOn }) => (closedOn ? [{ id, closedOn }] : []))
}
