import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { PlanInput, PlanRecord } from '../../shared/schemas/plan'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { plan, planDecision, staff } from '../db/schema'
import type { SignedIn } from './staff'

/** Every plan kept for a client, the newest first. */
export async function listPlans(db: Queryable, clientId: string): Promise<PlanRecord[]> {
  return db
    .select({
      id: plan.id,
      checkinId: plan.checkinId,
      kind: plan.kind,
      value: plan.value,
      perWeek: plan.perWeek,
      unit: plan.unit,
      byDay: plan.byDay,
      energy: plan.energy,
      at: plan.at,
      by: staff.name,
      endedAt: plan.endedAt,
    })
    .from(plan)
    .innerJoin(staff, eq(staff.id, plan.setBy))
    .where(eq(plan.clientId, clientId))
    .orderBy(desc(plan.at), desc(plan.id))
}

/** The plan that counts of each of these clients, with the codes coaches have decided on. */
export async function plansUnderWay(db: Queryable, clientIds: readonly string[]) {
  const rows = await db
    .selectDistinctOn([plan.clientId], {
      id: plan.id,
      clientId: plan.clientId,
      checkinId: plan.checkinId,
      kind: plan.kind,
      value: plan.value,
      perWeek: plan.perWeek,
      unit: plan.unit,
      at: plan.at,
      endedAt: plan.endedAt,
    })
    .from(plan)
    .where(inArray(plan.clientId, [...clientIds]))
    .orderBy(plan.clientId, desc(plan.at), desc(plan.id))
  const underWay = rows.filter(({ endedAt }) => endedAt === null)
  const ids = underWay.map(({ id }) => id)
  const decided =
    ids.length === 0
      ? []
      : await db
          .select({ planId: planDecision.planId, codes: planDecision.codes })
          .from(planDecision)
          .where(inArray(planDecision.planId, ids))
  return underWay.map((one) => ({
    ...one,
    decided: decided.flatMap(({ planId, codes }) => (planId === one.id ? codes : [])),
  }))
}
export type PlanUnderWay = Awaited<ReturnType<typeof plansUnderWay>>[number]

/** Stores a coach's decision that a plan goes on; sending it twice stores one. Throws IdTaken. */
export function addPlanDecision(
  tx: Transaction,
  who: SignedIn,
  decision: { id: string; planId: string; codes: string[]; reason: string },
): Promise<number> {
  return storeOnce(
    tx,
    planDecision,
    planDecision.id,
    [{ ...decision, decidedBy: who.staffId }],
    ['planId', 'codes', 'reason'],
  )
}

/** Keeps a plan under an id made by the device; sending it twice keeps one. Throws IdTaken. */
export function addPlan(tx: Transaction, who: SignedIn, clientId: string, input: PlanInput): Promise<number> {
  const fact = ['clientId', 'checkinId', 'kind', 'value', 'perWeek', 'unit', 'byDay', 'energy'] as const
  return storeOnce(tx, plan, plan.id, [{ ...input, clientId, setBy: who.staffId }], fact)
}

/** Ends a plan; it stays on record. False when this client has none under way with this id. */
export async function endPlan(tx: Transaction, clientId: string, id: string): Promise<boolean> {
  const ended = await tx
    .update(plan)
    .set({ endedAt: new Date().toISOString() })
    .where(and(eq(plan.clientId, clientId), eq(plan.id, id), isNull(plan.endedAt)))
    .returning({ id: plan.id })
  return ended.length > 0
}
