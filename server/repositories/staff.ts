import { and, asc, eq, sql } from 'drizzle-orm'
import { NO_ZONE } from '../../core/calendar'
import type {
  Habits,
  Me,
  OwnUnitsInput,
  Role,
  SetupInput,
  StaffMember,
  StaffRecord,
  StudioInput,
  StudioRules,
} from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { pin, staff, studio } from '../db/schema'
import { ofRow } from './of-row'
import { hasSecond } from './second-factors'
import { findStrange } from './sessions'
import { listSets } from './sets'
import type { Sees } from './seen-by'

/** Whose facts are asked for: nobody sees those of another studio. */
export interface InStudio {
  studioId: string
  /** Whose clients are seen where the studio's rule keeps coaches to their own; absent: everybody's. */
  sees?: Sees
}

/** The person behind a request. */
export interface SignedIn extends InStudio {
  staffId: string
  role: Role
  sessionId: string
}

/** The same, as a request finds them: with the zone their studio's days are counted in. */
export interface AtWork extends SignedIn {
  timeZone: string
}

const member = { id: staff.id, name: staff.name, email: staff.email, role: staff.role }

/** What sign-in compares a password with. */
export async function findCredentials(db: Queryable, email: string) {
  const rows = await db
    .select({ staffId: staff.id, studioId: staff.studioId, passwordHash: staff.passwordHash })
    .from(staff)
    .where(and(eq(staff.email, email), eq(staff.active, true)))
  return rows[0] ?? null
}

/** What a new password of a person is held against: it may not be made of what everybody knows about them. */
export async function findAboutPerson(
  db: Queryable,
  staffId: string,
): Promise<{ about: string[]; passwordHash: string; studioId: string } | null> {
  const rows = await db
    .select({
      name: staff.name,
      email: staff.email,
      studio: studio.name,
      studioId: studio.id,
      hash: staff.passwordHash,
    })
    .from(staff)
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(eq(staff.id, staffId), eq(staff.active, true)))
  const [row] = rows
  return row ? { about: [row.name, row.email, row.studio], passwordHash: row.hash, studioId: row.studioId } : null
}

export async function setPassword(tx: Transaction, staffId: string, passwordHash: string): Promise<void> {
  await tx.update(staff).set({ passwordHash }).where(eq(staff.id, staffId))
}

/** True while the installation has no studio yet. */
export async function isEmpty(db: Queryable): Promise<boolean> {
  const rows = await db.select({ id: studio.id }).from(studio).limit(1)
  return rows.length === 0
}

/** The studio of this installation; null before the first run. */
export async function findStudioId(db: Queryable): Promise<string | null> {
  const [row] = await db.select({ id: studio.id }).from(studio).orderBy(asc(studio.createdAt), asc(studio.id)).limit(1)
  return row?.id ?? null
}

/** Makes the studio and its lead coach; null when there is a studio already. */
export async function createStudio(
  tx: Transaction,
  ids: { studioId: string; staffId: string },
  input: Omit<SetupInput, 'password'> & { passwordHash: string },
): Promise<boolean> {
  await tx.execute(sql`lock table studio in exclusive mode`)
  if (!(await isEmpty(tx))) return false
  const { massUnit, lengthUnit, timeZone, studioName, name, email, passwordHash } = input
  await tx.insert(studio).values({ id: ids.studioId, name: studioName, massUnit, lengthUnit, timeZone })
  await tx.insert(staff).values({ id: ids.staffId, studioId: ids.studioId, name, email, passwordHash, role: 'lead' })
  return true
}

/** The zone a studio's days are counted in. */
export async function findTimeZone(db: Queryable, { studioId }: InStudio): Promise<string> {
  const [row] = await db.select({ timeZone: studio.timeZone }).from(studio).where(eq(studio.id, studioId))
  return row?.timeZone ?? NO_ZONE
}

/** Whom a mail about their account goes to; null when they may not sign in. */
export async function findPerson(db: Queryable, staffId: string) {
  const [row] = await db
    .select({
      name: staff.name,
      email: staff.email,
      timeZone: studio.timeZone,
      studioName: studio.name,
      address: studio.address,
    })
    .from(staff)
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(and(eq(staff.id, staffId), eq(staff.active, true)))
  return row ?? null
}

/** Everything the frame of the application shows about the person signed in. */
export async function findMe(db: Queryable, who: SignedIn): Promise<Me | null> {
  const rows = await db
    .select({
      staff: member,
      studio: {
        name: studio.name,
        massUnit: studio.massUnit,
        lengthUnit: studio.lengthUnit,
        timeZone: studio.timeZone,
        worthwhileFatKg: studio.worthwhileFatKg,
        worthwhileSumPercent: studio.worthwhileSumPercent,
      },
      own: { massUnit: staff.massUnit, lengthUnit: staff.lengthUnit },
      habits: staff.habits,
      energySince: studio.energyAcceptedAt,
      rules: {
        coachesSee: studio.coachesSee,
        quietFrom: studio.quietFrom,
        quietTo: studio.quietTo,
        sessionIdleHours: studio.sessionIdleHours,
        sessionDays: studio.sessionDays,
        lockMinutes: studio.lockMinutes,
        secondRequired: studio.secondRequired,
      },
      hasPin: sql<boolean>`exists (select from ${pin} where ${ofRow(pin.staffId)} = ${staff.id})`,
      lacksSecond: sql<boolean>`${studio.secondRequired} and not ${hasSecond(staff.id)}`,
    })
    .from(staff)
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(eq(staff.id, who.staffId))
  const [row] = rows
  return row ? { ...row, strange: await findStrange(db, who), sets: await listSets(db, who) } : null
}

export async function setOwnUnits(tx: Transaction, who: SignedIn, units: OwnUnitsInput): Promise<void> {
  await tx.update(staff).set(units).where(eq(staff.id, who.staffId))
}

export async function setHabits(tx: Transaction, who: SignedIn, habits: Habits): Promise<void> {
  await tx.update(staff).set({ habits }).where(eq(staff.id, who.staffId))
}

export async function changeStudio(
  tx: Transaction,
  who: SignedIn,
  input: Partial<StudioInput> & StudioRules,
): Promise<void> {
  await tx.update(studio).set(input).where(eq(studio.id, who.studioId))
}

/** When energy and macros were accepted; null: they are not offered. */
export async function findEnergySince(db: Queryable, { studioId }: InStudio): Promise<string | null> {
  const [row] = await db.select({ at: studio.energyAcceptedAt }).from(studio).where(eq(studio.id, studioId))
  return row?.at ?? null
}

/** Offers energy and macros from now on, or no longer. */
export async function offerEnergy(tx: Transaction, { studioId }: InStudio, offered: boolean): Promise<void> {
  const energyAcceptedAt = offered ? new Date().toISOString() : null
  await tx.update(studio).set({ energyAcceptedAt }).where(eq(studio.id, studioId))
}

/** Everybody who can sign in, by name. */
export async function listStaff(db: Queryable, who: InStudio): Promise<StaffMember[]> {
  const people = await listEverybody(db, who)
  return people.filter(({ active }) => active).map(({ active: _, hasCode: __, ...person }) => person)
}

/** Everybody who ever could sign in, by name. */
export async function listEverybody(db: Queryable, who: InStudio): Promise<StaffRecord[]> {
  return db
    .select({
      ...member,
      active: staff.active,
      hasCode: hasSecond(staff.id),
    })
    .from(staff)
    .where(eq(staff.studioId, who.studioId))
    .orderBy(asc(staff.name), asc(staff.id))
}

/** Adds a member of staff; null when the address is taken. */
export async function addStaff(
  tx: Transaction,
  who: InStudio,
  input: { id: string; name: string; email: string; role: Role; passwordHash: string },
): Promise<StaffMember | null> {
  const rows = await tx
    .insert(staff)
    .values({ studioId: who.studioId, ...input })
    .onConflictDoNothing({ target: staff.email })
    .returning(member)
  return rows[0] ?? null
}

/** A studio that would be left without anybody who answers for it. */
export class LastLead extends Error {
  constructor() {
    super('A studio needs a lead coach: make somebody else lead first.')
  }
}

/**
 * Changes what a person may do, or whether they may sign in. False when there is no such person here.
 * @throws LastLead
 */
export async function changeStaff(
  tx: Transaction,
  who: InStudio,
  id: string,
  change: { role: Role } | { active: boolean },
): Promise<boolean> {
  const changed = await tx
    .update(staff)
    .set(change)
    .where(and(eq(staff.id, id), eq(staff.studioId, who.studioId)))
    .returning({ id: staff.id })
  const leads = await tx
    .select({ id: staff.id })
    .from(staff)
    .where(and(eq(staff.studioId, who.studioId), eq(staff.role, 'lead'), eq(staff.active, true)))
  if (leads.length === 0) throw new LastLead()
  return changed.length > 0
}
