import type { Transaction } from '../db/database'
import { useStore } from '../db/use-database'
import { usePorts } from '../ports'
import { changeIn, type Actor, type Change, type Unit } from './change'

/** The door for writes of this process (server/write/change.ts). */
export async function change<Result>(
  actor: Actor,
  what: Change,
  work: (tx: Transaction, unit: Unit) => Promise<Result>,
): Promise<Result> {
  return changeIn({ store: await useStore(), ports: usePorts() }, actor, what, work)
}
