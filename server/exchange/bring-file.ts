import { eq } from 'drizzle-orm'
import type { TablePlanInput } from '../../shared/schemas/data'
import type { Queryable, Transaction } from '../db/database'
import type { PhotoStore } from '../ports/photo-store'
import type { SignedIn } from '../repositories/staff'
import { learnSets } from '../repositories/sets'
import { storeOnce } from '../write/same-again'
import type { Change, Unit } from '../write/change'
import { dataImport } from '../db/schema'
import { importArchive } from './archive-in'
import { openArchive } from './archive-read'
import type { FileReader } from './file-reader'
import { kindOf, lookAt, rememberHeadings, type BroughtFile } from './files'
import type { Progress } from './progress'
import { NotClean, storeIncoming } from './store-incoming'

/** What bringing a file in needs: where to look, where pictures go, and the door for writes. */
export interface Through {
  db: Queryable
  photos: PhotoStore
  /** Where files are read. */
  reader: FileReader
  change: <Result>(what: Change, work: (tx: Transaction, unit: Unit) => Promise<Result>) => Promise<Result>
}

interface Brought extends BroughtFile {
  /** Id of the import, made by whoever asks: asking twice brings it in once. */
  id: string
  plan: TablePlanInput | null
}

async function bringArchive(
  { photos, change, db }: Through,
  who: SignedIn,
  { path, name, id }: Brought,
  progress: Progress,
) {
  const archive = await openArchive(path)
  try {
    const done = await change({ kind: 'archive.imported', subjectId: id }, async (tx) => {
      const row = { id, studioId: who.studioId, kind: 'archive' as const, fileName: name.slice(0, 200) }
      const none = { broughtBy: who.staffId, clients: 0, checkins: 0, readings: 0, weighIns: 0 }
      await storeOnce(tx, dataImport, dataImport.id, [{ ...row, ...none }], ['studioId', 'kind'])
      const { counts, ...brought } = await importArchive(tx, archive, photos, progress, { who, importId: id })
      if (counts && brought.added > 0) await tx.update(dataImport).set(counts).where(eq(dataImport.id, id))
      return brought
    })
    await learnSets(db)
    return done
  } finally {
    archive.zip.close()
  }
}

/**
 * Brings a file in, whatever it is, all or nothing.
 * @throws NotClean, TableRefused, ArchiveRefused, FhirRefused, HeaderProblem with a sentence
 */
export async function bringFile(through: Through, who: SignedIn, file: Brought, progress: Progress): Promise<unknown> {
  const kind = await kindOf(file)
  if (kind.type === 'archive') return bringArchive(through, who, file, progress)
  const { look, found, rows } = await lookAt(through.db, who, file, kind, file.plan, progress, through.reader)
  if (!found || found.problemCount > 0) throw new NotClean(look.looked)
  await through.change({ kind: 'data.imported', subjectId: file.id }, async (tx) => {
    const what = { id: file.id, kind: kind.type, fileName: file.name.slice(0, 200) }
    await storeIncoming(tx, who, what, found, rows, progress)
    if (look.table) await rememberHeadings(tx, who, look.table.headings, look.table.plan)
  })
  return look.looked
}
