import { and, asc, eq, sql } from 'drizzle-orm'
import type { Habits, Me, OwnUnitsInput, SetupInput, StaffMember, StudioInput } from '../../shared/schemas/account'
import type { Database, Queryable } from '../db/database'
import { staff, studio } from '../db/schema'

/** Whose facts are asked for: nobody sees those of another studio. */
export interface InStudio {
  studioId: string
}

/** The person behind a request. */
export interface SignedIn extends InStudio {
  staffId: string
  role: 'lead' | 'coach'
}

const member = { id: staff.id, name: staff.name, email: staff.email, role: staff.role }

/** The active member of staff with this id, or null. */
export async function findActiveStaff(db: Queryable, staffId: string): Promise<SignedIn | null> {
  const rows = await db
    .select({ staffId: staff.id, studioId: staff.studioId, role: staff.role })
    .from(staff)
    .where(and(eq(staff.id, staffId), eq(staff.active, true)))
  return rows[0] ?? null
}

/** What sign-in compares a password with. */
export async function findCredentials(db: Queryable, email: string) {
  const rows = await db
    .select({ staffId: staff.id, passwordHash: staff.passwordHash })
    .from(staff)
    .where(and(eq(staff.email, email), eq(staff.active, true)))
  return rows[0] ?? null
}

/** True while the installation has no studio yet. */
export async function isEmpty(db: Queryable): Promise<boolean> {
  const rows = await db.select({ id: studio.id }).from(studio).limit(1)
  return rows.length === 0
}

/** Makes the studio and its lead coach; null when there is a studio already. */
export async function createStudio(
  db: Database,
  input: Omit<SetupInput, 'password'> & { passwordHash: string },
): Promise<string | null> {
  return db.transaction(async (tx) => {
    await tx.execute(sql`lock table studio in exclusive mode`)
    if (!(await isEmpty(tx))) return null
    const studioId = crypto.randomUUID()
    const staffId = crypto.randomUUID()
    const { massUnit, lengthUnit } = input
    await tx.insert(studio).values({ id: studioId, name: input.studioName, massUnit, lengthUnit })
    await tx.insert(staff).values({
      id: staffId,
      studioId,
      name: input.name,
      email: input.email,
      passwordHash: input.passwordHash,
      role: 'lead',
    })
    return staffId
  })
}

/** Everything the frame of the application shows about the person signed in. */
export async function findMe(db: Queryable, who: SignedIn): Promise<Me | null> {
  const rows = await db
    .select({
      staff: member,
      studio: { name: studio.name, massUnit: studio.massUnit, lengthUnit: studio.lengthUnit },
      own: { massUnit: staff.massUnit, lengthUnit: staff.lengthUnit },
      habits: staff.habits,
    })
    .from(staff)
    .innerJoin(studio, eq(studio.id, staff.studioId))
    .where(eq(staff.id, who.staffId))
  return rows[0] ?? null
}

export async function setOwnUnits(db: Queryable, who: SignedIn, units: OwnUnitsInput): Promise<void> {
  await db.update(staff).set(units).where(eq(staff.id, who.staffId))
}

export async function setHabits(db: Queryable, who: SignedIn, habits: Habits): Promise<void> {
  await db.update(staff).set({ habits }).where(eq(staff.id, who.staffId))
}

export async function changeStudio(db: Queryable, who: SignedIn, input: StudioInput): Promise<void> {
  await db.update(studio).set(input).where(eq(studio.id, who.studioId))
}

export async function listStaff(db: Queryable, who: SignedIn): Promise<StaffMember[]> {
  return db
    .select(member)
    .from(staff)
    .where(and(eq(staff.studioId, who.studioId), eq(staff.active, true)))
    .orderBy(asc(staff.name))
}

/** Adds a member of staff; null when the address is taken. */
export async function addStaff(
  db: Queryable,
  who: SignedIn,
  input: { name: string; email: string; role: 'lead' | 'coach'; passwordHash: string },
): Promise<StaffMember | null> {
  const rows = await db
    .insert(staff)
    .values({ id: crypto.randomUUID(), studioId: who.studioId, ...input })
    .onConflictDoNothing({ target: staff.email })
    .returning(member)
  return rows[0] ?? null
}
