import { z } from 'zod'
import type { SlashOrder } from '../../core/calendar'
import { SITES, type SiteId } from '../../core/sites'
import { COLUMN_UNITS, type Means } from '../../exchange/table/headings'
import { FACTS, type FactId } from '../../exchange/table/spellings'

/** What a file that was brought in was. */
export const IMPORT_KINDS = ['table', 'readings', 'fhir', 'archive'] as const
export type ImportKind = (typeof IMPORT_KINDS)[number]

/** What an import makes. */
export const ITEM_KINDS = ['client', 'checkin', 'weigh-in', 'other'] as const

const months = z
  .int('This is a whole number of months.')
  .min(6, 'Six months at least: shorter would take away what is still in use.')
  .max(600, 'At most 600 months.')
  .nullable()

/** How long a studio keeps what it has; null: for good. */
export const retentionRules = z.strictObject({
  /** Clients without a visit, a weigh-in or a hand-in for so long are due to be erased. */
  clientMonths: months.default(null),
  /** Photographs older than this are due to be removed. */
  photoMonths: months.default(null),
})
export type RetentionRules = z.output<typeof retentionRules>
export const KEEP_ALL: RetentionRules = { clientMonths: null, photoMonths: null }

/** Everything about one client; of somebody in neutral mode figures only with a reason, which goes on record. */
export const ownFileInput = z.strictObject({
  figuresReason: z.string({ error: 'Please say why.' }).trim().max(300, 'At most 300 characters.').default(''),
})

/** Long work that somebody watches: an export, a look through a file, an import, a backup. */
export interface DataJob {
  id: string
  kind: 'export' | 'look' | 'import' | 'backup'
  /** What it is about, in a few words. */
  about: string
  state: 'running' | 'done' | 'failed' | 'stopped'
  /** How far it is; null: just begun. `total` 0: not known beforehand. */
  step: { done: number; total: number; of: string } | null
  /** What went wrong, when it failed. */
  sentence: string | null
  /** A file to fetch, when it made one. */
  fileName: string | null
  /** What it found or did. */
  result: unknown
  startedAt: string
}

/** Something wrong in a file: the line and, where it is one cell, the column from 0. */
export interface FileProblem {
  line: number
  column: number | null
  message: string
}

/** What a file would bring in, before anything is stored. */
export interface LookedAt {
  /** The first two hundred. */
  clients: { name: string; isNew: boolean; line: number; birthDate: string; sex: 'female' | 'male' }[]
  newClients: number
  matchedClients: number
  checkins: number
  readings: number
  weighIns: number
  /** Check-ins and weights that are here already: they are left as they are. */
  here: number
  /** The first three hundred, by line. */
  problems: FileProblem[]
  problemCount: number
}

/** An import as the list shows it. */
export interface ImportLine {
  id: string
  kind: ImportKind
  fileName: string
  by: string
  at: string
  clients: number
  checkins: number
  readings: number
  weighIns: number
  takenBackAt: string | null
}

/** Everything a column of a table can hold. */
export const MEANS = ['left-out', ...(Object.keys(FACTS) as FactId[]), ...(Object.keys(SITES) as SiteId[])] as const

const column = z.strictObject({
  means: z.enum(MEANS as unknown as [Means, ...Means[]], { error: 'This is nothing a column can hold.' }).nullable(),
  unit: z.enum(COLUMN_UNITS, { error: 'This is no unit.' }).nullable(),
  trial: z.int().min(1).max(6),
})

/** How somebody says a table is to be read. */
export const tablePlan = z.strictObject({
  sheet: z.string().max(100).nullable(),
  layout: z.enum(['rows', 'columns']),
  headingLine: z.int().min(1).max(100),
  columns: z.array(column).max(400),
  dateOrder: z.enum(['day-first', 'month-first']).nullable(),
  /** Whose log it is, where no column says so. */
  clientId: z.uuid().nullable(),
  protocolId: z.string().max(60).nullable(),
})
export type TablePlanInput = z.output<typeof tablePlan>

export const lookInput = z.strictObject({ plan: tablePlan.nullable() })
export const importInput = z.strictObject({ id: z.uuid('This needs an id.'), plan: tablePlan.nullable() })

/** A table as it was understood. */
export interface TableLook {
  sheets: string[]
  plan: TablePlanInput
  headings: string[]
  samples: string[][]
  asksOrder: boolean
  order: SlashOrder | null
  rows: number
  /** Sets that hold every site of the table, the closest first; then the others with what they lack. */
  sets: { id: string; name: string; lacks: SiteId[]; more: number }[]
}

/** A file that was looked through. */
export interface FileLook {
  type: ImportKind
  table: TableLook | null
  looked: LookedAt | null
  archive: ArchiveLook | null
}

/** An archive held against what is here. */
export interface ArchiveLook {
  studio: string
  photos: number
  tables: { table: string; fresh: number; same: number; conflict: number }[]
}

/** How a file is called that is brought in. */
export const fileName = z.object({ name: z.string().trim().min(1, 'This needs a name.').max(200) })

/** The last good backup. */
export interface BackupStatus {
  /** `record`: the newest entry of the audit log in it and its hash, to be noted elsewhere. */
  last: { name: string; at: string; bytes: number; record: string | null } | null
  count: number
  bytes: number
  /** A night's was missed. */
  missed: boolean
  /** The last one is dated in the future: a clock was wrong then, or is now. */
  ahead: boolean
  /** The last backup restored as a trial; null: none yet. `fault`: what went wrong. */
  trial: { name: string; at: string; rows: number; fault: string | null } | null
  /** The database holds less than it should, or a part of it cannot be read. */
  damage: { at: string; sentence: string } | null
}

export const EXPORT_FORMATS = ['archive', 'readings', 'workbook', 'fhir', 'calendar'] as const
export const exportInput = z.strictObject({
  format: z.enum(EXPORT_FORMATS, { error: 'This is no format of ours.' }),
  /** Null: everybody. An archive is always of everybody. */
  clientId: z.uuid('There is no such client here.').nullable(),
})
export type ExportInput = z.output<typeof exportInput>

/** What has fallen due by the rules of retention. */
export interface RetentionDue {
  clients: { id: string; name: string; lastOn: string }[]
  photos: number
}

/** Everything Studio > Data shows. */
export interface DataPage {
  backup: BackupStatus
  imports: ImportLine[]
  jobs: DataJob[]
  retention: RetentionRules
  due: RetentionDue
}

/** What remains of an erased client elsewhere. */
export interface Erased {
  /** Backups that still hold them, and the day each is gone at the latest. */
  backups: { name: string; goneBy: string }[]
  /** Work under way whose files may hold them, and the instant they are gone at the latest. */
  files: { about: string; goneAt: string }[]
}

/** Erasing asks for the name, so that no slip does it. */
export const eraseInput = z.strictObject({ name: z.string().max(200) })
/** What is to be removed, as it was shown: nothing else is. */
export const retentionDone = z.strictObject({ clientIds: z.array(z.uuid()).max(500), photos: z.boolean() })
