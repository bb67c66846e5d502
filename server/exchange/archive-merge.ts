import { inArray } from 'drizzle-orm'
import { getTableConfig } from 'drizzle-orm/pg-core'
import type { Queryable, Transaction } from '../db/database'
import { clientLink, importedItem, staff, study } from '../db/schema'
import type { ITEM_KINDS } from '../../shared/schemas/data'
import type { SignedIn } from '../repositories/staff'
import type { Row } from './archive-read'
import type { ArchivedTable } from './tables'

/** Tables an archive may add rows to where a studio is in use: facts about clients, and what those stand on. */
export const MERGED: ReadonlySet<string> = new Set([
  'booking',
  'caliper',
  'caliper_check',
  'caliper_correction',
  'caution_flag',
  'challenge',
  'challenge_entry',
  'checkin',
  'client',
  'client_choice',
  'client_schedule',
  'coach_line',
  'column_name',
  'drill_round',
  'hand_in',
  'home_girth',
  'home_photo',
  'intake',
  'landmark_note',
  'neutral_leave',
  'other_measurement',
  'photo',
  'pinned_start',
  'plan',
  'plan_decision',
  'reading',
  'remark',
  'skip',
  'strike',
  'studio_set',
  'training_plan',
  'weigh_in',
])

/** Tables it never adds to there, and why. Both lists together name every table (tests/server/archive.test.ts). */
export const NEVER_MERGED: Readonly<Record<string, string>> = {
  studio: 'the studio and its rules are its own',
  staff: 'people get in by invitation only',
  second_factor: 'proves who somebody is',
  recovery_code: 'proves who somebody is',
  passkey: 'proves who somebody is',
  pin: 'proves who somebody is',
  device_key: 'opens what lies on devices',
  client_link: 'opens a client’s own page',
  calendar_link: 'opens a calendar',
  reminder_choice: 'sends mail to an address',
  mail: 'would be sent',
  away: 'is about people who do not come along',
  study: 'says how well people measure who do not come along',
  study_pen: 'says how well people measure who do not come along',
  study_person: 'says how well people measure who do not come along',
  study_turn: 'says how well people measure who do not come along',
  audit: 'the audit log of a studio is written by what happens in it',
  audit_chain: 'the audit log of a studio is written by what happens in it',
  data_import: 'is about imports of another studio',
  imported_item: 'is about imports of another studio',
}

/** Columns that open something, emptied on the way in. */
const EMPTIED: ReadonlySet<string> = new Set(['challenge.board_token_hash'])
/** What is named by rows that stand without it as well. */
const STANDS_WITHOUT: Readonly<Record<string, true>> = { client_link: true }
/** Rows about a person of the staff: they stay out where that person does not work here. */
const ABOUT_STAFF: ReadonlySet<string> = new Set(['drill_round', 'training_plan'])
/** Rows that loosen what protects a client: they come only with a client who is new here. */
const WITH_NEW_CLIENT: ReadonlySet<string> = new Set(['neutral_leave'])

/** Kinds of rows that are always marked as brought in; others where they hang on nothing that came with them. */
const KINDS: Readonly<Record<string, (typeof ITEM_KINDS)[number]>> = {
  client: 'client',
  checkin: 'checkin',
  weigh_in: 'weigh-in',
}

/** Who merges an archive, and as which import it is noted. */
export interface MergedBy {
  who: SignedIn
  importId: string
}

/** People of the archive as they are known here: by id, or by the same address. */
async function peopleHere(db: Queryable, people: readonly Row[]): Promise<Map<unknown, string>> {
  const here = await db.select({ id: staff.id, email: staff.email }).from(staff)
  const ids = new Set(here.map(({ id }) => id))
  const byEmail = new Map(here.map(({ id, email }) => [email.toLowerCase(), id]))
  return new Map(
    people.flatMap(({ id, email }) => {
      const known = ids.has(String(id)) ? String(id) : byEmail.get(String(email).toLowerCase())
      return known ? [[id, known] as const] : []
    }),
  )
}

/** A column that names a row of another table. */
interface Reference {
  column: string
  to: string
  required: boolean
}

function referencesOf({ table }: ArchivedTable): Reference[] {
  return getTableConfig(table).foreignKeys.flatMap((key) => {
    const { columns, foreignTable } = key.reference()
    const [column] = columns
    return column ? [{ column: column.name, to: getTableConfig(foreignTable).name, required: column.notNull }] : []
  })
}

/** An archive on its way into a studio in use: its rows as they may stand there. */
export class Merge {
  /** Ids of rows that came with this import. */
  private readonly brought = new Set<unknown>()
  /** Ids of rows left out: what hangs on them stays out as well. */
  private readonly left = new Set<unknown>()
  counts = { clients: 0, checkins: 0, readings: 0, weighIns: 0 }

  private constructor(
    private readonly from: string,
    private readonly by: SignedIn,
    private readonly people: Map<unknown, string>,
  ) {}

  /** @param people rows of the archive's own staff */
  static async into(db: Queryable, from: string, by: SignedIn, people: readonly Row[]): Promise<Merge> {
    return new Merge(from, by, await peopleHere(db, people))
  }

  /** Rows under this studio: people who do not work here are left out, or replaced by the person who merges. */
  async under(db: Queryable, table: ArchivedTable, rows: readonly Row[]): Promise<Row[]> {
    const references = referencesOf(table)
    const here = await this.namedHere(db, references, rows)
    return rows.flatMap((row) => {
      const next: Row = { ...row }
      const isLeft = references.some(({ column, to, required }) => {
        const value = row[column]
        if (value === null || value === undefined) return false
        if (to === 'studio') next[column] = value === this.from ? this.by.studioId : value
        else if (to === 'staff') {
          next[column] = this.people.get(value) ?? (required ? this.by.staffId : null)
          return ABOUT_STAFF.has(table.name) && !this.people.has(value)
        } else if (to in STANDS_WITHOUT) next[column] = here.has(value) ? value : null
        else if (to in NEVER_MERGED) return !here.has(value)
        return this.left.has(value)
      })
      if (isLeft) {
        this.left.add(row.id)
        return []
      }
      for (const { name } of table.columns) if (EMPTIED.has(`${table.name}.${name}`)) next[name] = null
      return [next]
    })
  }

  /** Ids of links and studies these rows name that are here. */
  private async namedHere(
    db: Queryable,
    references: readonly Reference[],
    rows: readonly Row[],
  ): Promise<Set<unknown>> {
    const found = new Set<unknown>()
    for (const [name, table] of [
      ['client_link', clientLink],
      ['study', study],
    ] as const) {
      const columns = references.filter(({ to }) => to === name).map(({ column }) => column)
      const ids = rows.flatMap((row) => columns.flatMap((column) => (row[column] ? [String(row[column])] : [])))
      if (ids.length === 0) continue
      for (const { id } of await db.select({ id: table.id }).from(table).where(inArray(table.id, ids))) found.add(id)
    }
    return found
  }

  /** Rows that may come: see `WITH_NEW_CLIENT`. */
  allowed({ name }: ArchivedTable, rows: readonly Row[]): Row[] {
    return WITH_NEW_CLIENT.has(name) ? rows.filter((row) => this.brought.has(row.client_id)) : [...rows]
  }

  /** Marks stored rows as brought in by an import. */
  async mark(tx: Transaction, importId: string, table: ArchivedTable, rows: readonly Row[]): Promise<void> {
    const references = referencesOf(table).map(({ column }) => column)
    const kind = KINDS[table.name]
    const marks = rows.flatMap((row) => {
      if (typeof row.id !== 'string') return []
      const hangs = references.some((column) => this.brought.has(row[column]))
      this.brought.add(row.id)
      return kind || !hangs ? [{ importId, kind: kind ?? ('other' as const), itemId: row.id }] : []
    })
    if (marks.length > 0) await tx.insert(importedItem).values(marks).onConflictDoNothing()
    if (table.name === 'client') this.counts.clients += rows.length
    if (table.name === 'checkin') this.counts.checkins += rows.length
    if (table.name === 'reading') this.counts.readings += rows.length
    if (table.name === 'weigh_in') this.counts.weighIns += rows.length
  }
}
