import type { ClientFilter, ClientLine, ClientPage, ClientSort } from '../../shared/schemas/client'
import type { Queryable } from '../db/database'
import { clientLines } from './client-lines'
import type { SignedIn } from './staff'

const PAGE = 100

/** What a column is sorted by; null stands last either way. */
const KEYS: Record<ClientSort, (line: ClientLine) => string | number | null> = {
  name: ({ name }) => name.toLowerCase(),
  fat: ({ fat }) => fat?.value ?? null,
  lean: ({ lean }) => lean?.value ?? null,
  sum: ({ sum }) => sum?.value ?? null,
  last: ({ lastCheckinAt }) => lastCheckinAt,
  next: ({ nextOn }) => nextOn,
}

function fits(filter: ClientFilter, line: ClientLine): boolean {
  switch (filter) {
    case 'all':
      return true
    case 'due':
      return line.due
    case 'changed':
      return [line.fat, line.lean, line.sum].some((figure) => figure?.change?.verdict === 'real')
    case 'open':
      return line.openCheckinId !== null
    case 'new':
      return line.checkins === 0
  }
}

function sorted(lines: ClientLine[], sort: ClientSort, descending: boolean): ClientLine[] {
  if (sort === 'name') return descending ? lines.reverse() : lines
  const key = KEYS[sort]
  const way = descending ? -1 : 1
  return lines.sort((a, b) => {
    const [x, y] = [key(a), key(b)]
    if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1
    return x < y ? -way : x > y ? way : 0
  })
}

/** A page of the studio's clients: found, filtered and sorted. `today` is a day of the studio. */
export async function listClients(
  db: Queryable,
  who: SignedIn,
  query: { q: string; archived: boolean; sort: ClientSort; descending: boolean; filter: ClientFilter; from: number },
  today: string,
): Promise<ClientPage> {
  const { q, archived, sort, descending, filter, from } = query
  const wanted = q.trim().toLowerCase()
  const all = await clientLines(db, who, archived, today)
  const found = all.filter((line) => line.name.toLowerCase().includes(wanted) && fits(filter, line))
  const clients = sorted(found, sort, descending).slice(from, from + PAGE)
  const end = from + clients.length
  return { clients, total: found.length, next: end < found.length ? end : null }
}
