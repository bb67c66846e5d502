import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import { v7 as uuid } from 'uuid'
import { columnLetters } from '../exchange/table/cells'
import { importArchive } from '../server/exchange/archive-in'
import { openArchive } from '../server/exchange/archive-read'
import { bringFile } from '../server/exchange/bring-file'
import { readHere } from '../server/exchange/file-reader'
import { kindOf } from '../server/exchange/files'
import { NotClean } from '../server/exchange/store-incoming'
import type { LookedAt } from '../shared/schemas/data'
import { atStore, shownProgress, type AtStore } from './at-store'

const USAGE =
  'npm run import -- FILE [--data FOLDER]   (an archive, a readings CSV, a table as CSV or XLSX, a FHIR bundle)'

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' } },
})
const [path] = positionals
if (!path) {
  console.error(USAGE)
  process.exit(2)
}

function sayProblems({ problems, problemCount }: LookedAt): void {
  for (const { line, column, message } of problems)
    console.error(`line ${line}${column === null ? '' : `, column ${columnLetters(column)}`}: ${message}`)
  console.error(`${problemCount} problems: nothing was stored.`)
  process.exitCode = 2
}

/** An archive into an empty place: a restore, or a move to another database. Nothing is added to it. */
async function restore({ store, photos }: AtStore, file: string): Promise<void> {
  const archive = await openArchive(file)
  try {
    const { added } = await store.database.transaction((tx) => importArchive(tx, archive, photos, shownProgress))
    await store.settle()
    console.error(
      `\nRestored: ${added} rows and ${archive.manifest.photos.length} photographs of ${archive.manifest.studio.name}.`,
    )
  } finally {
    archive.zip.close()
  }
}

await atStore(values.data, async (at) => {
  const file = { path, name: basename(path) }
  const kind = await kindOf(file)
  if (!at.who) {
    if (kind.type === 'archive') return restore(at, path)
    console.error(
      'There is no studio here yet: only an archive can be brought in. Start the application and make one first.',
    )
    process.exitCode = 2
    return
  }
  const through = { db: at.store.database, photos: at.photos, reader: readHere, change: at.change }
  const done = await bringFile(through, at.who, { ...file, id: uuid(), plan: null }, shownProgress).catch(
    (error: unknown) => {
      if (!(error instanceof NotClean) || !error.looked) throw error
      sayProblems(error.looked)
      return null
    },
  )
  if (done === null) return
  const counts = Object.entries(done as Record<string, unknown>).flatMap(([name, count]) =>
    typeof count === 'number' ? [`${name} ${count}`] : [],
  )
  console.error(`\nBrought in: ${counts.join(', ')}.`)
})
