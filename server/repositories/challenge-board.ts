import { teamRunner, standingOf } from '../../core/challenge'
import type { Day } from '../../core/calendar'
import type { Board, EntryRecord } from '../../shared/schemas/challenge'
import type { Queryable } from '../db/database'
import { usePorts } from '../ports'
import { challengeEntries, groupsOf, standingOfGroup } from './challenge-facts'
import type { StoredChallenge } from './challenges'

/** A board is asked for again and again: worked out once in so long, ms. */
const KEEP_MS = 60_000

function nameOf({ shownAs, alias, clientName }: EntryRecord): string | null {
  if (shownAs === 'hidden') return null
  return shownAs === 'alias' ? alias : clientName
}

/** Rows of those who agreed to be shown; the bar is the share of the longest one, nobody's own figure. */
function rowsOf(entries: readonly EntryRecord[]): Board['groups'][number]['rows'] {
  const standings = standingOfGroup(entries)
  const longest = Math.max(...standings.map(({ change }) => -change), 1e-9)
  const byId = new Map(entries.map((one) => [one.id, one]))
  return standings.flatMap(({ id, change, place, first }) => {
    const entry = byId.get(id)
    const name = entry && nameOf(entry)
    return name ? [{ name, place, share: Math.max(0, -change / longest), first }] : []
  })
}

function teamRows(entries: readonly EntryRecord[], teams: readonly string[]): Board['groups'][number]['rows'] {
  const runners = teams.flatMap((team) => {
    const members = entries.flatMap(({ id, runner, team: own }) => (own === team && runner ? [{ id, ...runner }] : []))
    return teamRunner(team, members) ?? []
  })
  const longest = Math.max(...runners.map(({ change }) => -change), 1e-9)
  return standingOf(runners).map(({ id, change, place, first }) => ({
    name: id,
    place,
    share: Math.max(0, -change / longest),
    first,
  }))
}

/** What a wall shows of a challenge. */
export async function boardOf(
  db: Queryable,
  who: { studioId: string; studioName: string },
  challenge: StoredChallenge,
  today: Day,
): Promise<Board> {
  const { shelf } = usePorts()
  const known = shelf.get<{ at: number; board: Board }>('boards', challenge.id)
  if (known && Date.now() - known.at < KEEP_MS && known.board.today === today) return known.board
  const entries = (await challengeEntries(db, { studioId: who.studioId }, challenge, today)).filter(
    ({ leftAt }) => leftAt === null,
  )
  const groups = groupsOf(entries).map((group) => ({ name: group.name, rows: rowsOf(group.entries) }))
  const running = groupsOf(entries).flatMap((group) => group.entries)
  const board: Board = {
    studioName: who.studioName,
    name: challenge.name,
    startsOn: challenge.startsOn,
    endsOn: challenge.endsOn,
    today,
    closed: challenge.closedAt !== null,
    groups:
      challenge.teams.length > 1 ? [...groups, { name: 'Teams', rows: teamRows(running, challenge.teams) }] : groups,
    hidden: running.filter(({ shownAs }) => shownAs === 'hidden').length,
  }
  shelf.put('boards', challenge.id, { at: Date.now(), board })
  return board
}
