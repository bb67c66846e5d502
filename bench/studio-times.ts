import { seededRandom } from '../core/simulate'
import type { Store } from '../server/db/database'
import { listClients } from '../server/repositories/client-list'
import { clientLines } from '../server/repositories/client-lines'
import { findClient } from '../server/repositories/clients'
import { findFloor } from '../server/repositories/floor'
import { findHistory } from '../server/repositories/history'
import type { SignedIn } from '../server/repositories/staff'

/** How long things took, ms, in order. */
export type Times = number[]

export async function times(runs: number, run: (i: number) => Promise<unknown>): Promise<Times> {
  const taken: number[] = []
  for (let i = 0; i < runs; i += 1) {
    const start = performance.now()
    JSON.stringify(await run(i))
    taken.push(performance.now() - start)
  }
  return taken.sort((a, b) => a - b)
}

export const at = (taken: Times, share: number) => taken[Math.floor(share * (taken.length - 1))] ?? NaN

export function say(name: string, taken: Times, target: string): void {
  console.log(
    `${name.padEnd(34)} p50 ${at(taken, 0.5).toFixed(1)} ms, p95 ${at(taken, 0.95).toFixed(1)} ms (target ${target})`,
  )
}

/** What a coach asks all day, at the size of this studio: each with its times. */
export async function studioTimes(
  { database: db }: Store,
  who: SignedIn,
): Promise<Record<'page' | 'list' | 'floor' | 'find', Times>> {
  const today = new Date().toISOString().slice(0, 10)
  const began = performance.now()
  const all = await clientLines(db, who, false, today)
  console.log(
    `every client’s line, first time: ${((performance.now() - began) / 1000).toFixed(1)} s (${all.length} clients)`,
  )
  const random = seededRandom(7)
  const some = () => all[Math.floor(random.next() * all.length)]
  const list = { q: '', archived: false, sort: 'name', descending: false, filter: 'all', from: 0 } as const
  const page = await times(150, async () => {
    const client = await findClient(db, who, some()?.id ?? '')
    return client && findHistory(db, who, client)
  })
  say('client page data', page, 'p95 60 ms')
  const sorts = ['name', 'fat', 'lean', 'sum', 'last', 'next'] as const
  const lists = await times(150, (i) =>
    listClients(db, who, { ...list, sort: sorts[i % sorts.length] ?? 'name' }, today),
  )
  say('clients page, every sort', lists, 'p95 80 ms')
  const floor = await times(100, () => findFloor(db, who, today, 'UTC'))
  say('the floor', floor, 'p95 80 ms')
  const find = await times(200, () => {
    const name = some()?.name ?? ''
    return listClients(db, who, { ...list, q: name.slice(0, 1 + Math.floor(random.next() * 6)) }, today)
  })
  say('find as you type', find, 'p95 40 ms')
  return { page, list: lists, floor, find }
}
