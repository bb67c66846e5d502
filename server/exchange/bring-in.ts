import { isInSet, siteInSet } from '../../core/sites'
import { BOUNDS } from '../../core/units'
import { and, inArray, isNull } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { latestDay } from '../../core/calendar'
import { findProtocol } from '../../core/protocols'
import type { CellProblem, IncomingRow } from '../../exchange/incoming'
import type { LookedAt } from '../../shared/schemas/data'
import type { Queryable } from '../db/database'
import { checkin, weighIn } from '../db/schema'
import { People, type Matched, type Places } from './people'
import type { Progress } from './progress'

/** Problems that are shown; beyond them they are counted. */
const SHOWN = 300

/** A check-in or a day's weight of a file, as it stands to what is here. */
export interface Known {
  id: string
  clientId: string
  /** Here already: left as it is. */
  here: boolean
  line: number
  readings: number
  protocolId: string | null
  stored: boolean
}

/** How check-ins of a file and of the studio are held against each other. */
export interface Terms {
  studioId: string
  /** A table knows days, not minutes: one check-in a day and set is the same. */
  byDay: boolean
  /** A table's row is a whole check-in; else rows of one instant belong together. */
  rowIsWhole: boolean
  places?: Places
}

const keyOf = (clientId: string, { at, day, protocolId }: IncomingRow, byDay: boolean) =>
  protocolId === null ? `${clientId} weight ${day}` : byDay ? `${clientId} ${day} ${protocolId}` : `${clientId} ${at}`

/** Why a row cannot be kept whatever its values say, in whatever format it came; null: it can. */
function unfitOf({ client, assessor, note, readings, day }: IncomingRow): string | null {
  const texts = [client.name, assessor, note, ...readings.map((one) => one.note)]
  // The database takes no NUL, and half a pair of surrogates is no character.
  if (texts.some((text) => text.includes('\0') || !text.isWellFormed()))
    return 'This line holds a character that is none: please type it anew.'
  if (client.name.length > 120) return 'A name has at most 120 characters.'
  if (client.birthDate !== null && client.birthDate < BOUNDS.firstBirthDay)
    return `The birth date is before ${BOUNDS.firstBirthDay}.`
  if (day < BOUNDS.firstFactDay) return `${day} is too long ago: nothing before ${BOUNDS.firstYear} is taken.`
  return day > latestDay(Date.now()) ? `${day} is still to come.` : null
}

/** A file looked through before anything is stored: who it is about, what is new, and everything that is wrong. */
export class BringIn {
  readonly visits = new Map<string, Known>()
  readonly problems: CellProblem[] = []
  problemCount = 0
  private readonly here = new Set<string>()
  private readonly asked = new Set<string>()

  private constructor(
    readonly people: People,
    readonly terms: Terms,
  ) {}

  readonly tell = (problem: CellProblem): void => {
    this.problemCount += 1
    if (this.problems.length < SHOWN) this.problems.push(problem)
  }

  private async learnHere(db: Queryable, clientIds: string[]): Promise<void> {
    if (clientIds.length === 0) return
    const visits = await db
      .select({ clientId: checkin.clientId, at: checkin.startedAt, day: checkin.day, protocolId: checkin.protocolId })
      .from(checkin)
      .where(and(inArray(checkin.clientId, clientIds), isNull(checkin.studyId), isNull(checkin.voidedAt)))
    const row = { line: 0 } as IncomingRow
    for (const { clientId, ...visit } of visits) this.here.add(keyOf(clientId, { ...row, ...visit }, this.terms.byDay))
    const weights = await db
      .select({ clientId: weighIn.clientId, day: weighIn.day })
      .from(weighIn)
      .where(and(inArray(weighIn.clientId, clientIds), isNull(weighIn.struckAt)))
    for (const { clientId, day } of weights)
      this.here.add(keyOf(clientId, { ...row, at: '', day, protocolId: null }, false))
  }

  private async look(db: Queryable, row: IncomingRow): Promise<void> {
    const unfit = unfitOf(row)
    if (unfit) return this.tell({ line: row.line, column: null, message: unfit })
    const matched = this.people.match(row)
    if (!matched) return
    if ('message' in matched) return this.tell(matched)
    if (row.day < matched.birthDate)
      return this.tell({ line: row.line, column: null, message: `This is before ${matched.name} was born.` })
    if (!matched.isNew && !this.asked.has(matched.id)) {
      this.asked.add(matched.id)
      await this.learnHere(db, [matched.id])
    }
    this.note(matched, row)
  }

  private note(matched: Matched, row: IncomingRow): void {
    const key = keyOf(matched.id, row, this.terms.byDay)
    const known = this.visits.get(key)
    const sites = (row.protocolId ? findProtocol(row.protocolId) : null)?.sites ?? []
    const strange = row.readings.find(
      ({ site }) => site !== 'weight' && site !== 'height' && !isInSet(sites, siteInSet(sites, site)),
    )
    if (strange)
      return this.tell({
        line: row.line,
        column: null,
        message: `${strange.site} is not in the chosen set: choose one that has it, or leave the column out.`,
      })
    if (!known) {
      const one = {
        id: uuid(),
        clientId: matched.id,
        here: this.here.has(key),
        line: row.line,
        protocolId: row.protocolId,
      }
      this.visits.set(key, { ...one, readings: row.readings.length, stored: false })
    } else if (this.terms.rowIsWhole)
      this.tell({
        line: row.line,
        column: null,
        message: `Line ${known.line} has ${row.protocolId ? 'a check-in' : 'a weight'} of ${matched.name} on the same day already.`,
      })
    else if (known.protocolId !== row.protocolId)
      this.tell({
        line: row.line,
        column: null,
        message: `Line ${known.line} names another set for the same check-in.`,
      })
    else known.readings += row.readings.length
  }

  /** The check-in a row belongs to, once the file has been looked through. */
  visitOf(row: IncomingRow): { known: Known; client: Matched } | null {
    const matched = this.people.match(row)
    if (!matched || 'message' in matched) return null
    const known = this.visits.get(keyOf(matched.id, row, this.terms.byDay))
    return known && !known.here ? { known, client: matched } : null
  }

  /**
   * Looks a file through.
   * @param rows of the file; what cannot be read of it is told to `tell`
   */
  static async look(
    db: Queryable,
    terms: Terms,
    rows: (tell: (problem: CellProblem) => void) => AsyncIterable<IncomingRow>,
    { tell, stopped }: Progress,
  ): Promise<BringIn> {
    const found = new BringIn(await People.of(db, terms.studioId, terms.places), terms)
    let done = 0
    for await (const row of rows(found.tell)) {
      await found.look(db, row)
      done += 1
      if (done % 500 === 0) {
        stopped()
        tell({ done, total: 0, of: 'rows' })
        // Others are answered in between.
        await new Promise((next) => setImmediate(next))
      }
    }
    return found
  }

  /** What was found, to be shown. */
  said(): LookedAt {
    const people = this.people.all()
    const all = [...this.visits.values()]
    const fresh = all.filter(({ here }) => !here)
    const visits = fresh.filter(({ protocolId }) => protocolId !== null)
    return {
      clients: people
        .slice(0, 200)
        .map(({ name, isNew, line, birthDate, sex }) => ({ name, isNew, line, birthDate, sex })),
      newClients: people.filter(({ isNew }) => isNew).length,
      matchedClients: people.filter(({ isNew }) => !isNew).length,
      checkins: visits.length,
      readings: visits.reduce((sum, { readings }) => sum + readings, 0),
      weighIns: fresh.length - visits.length,
      here: all.length - fresh.length,
      problems: [...this.problems].sort((a, b) => a.line - b.line),
      problemCount: this.problemCount,
    }
  }
}
