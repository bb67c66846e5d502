import { setResponseStatus } from 'h3'
import { lookInput, type DataJob, type FileLook } from '../../../../../shared/schemas/data'
import { useDatabase } from '../../../../db/use-database'
import { compareArchive } from '../../../../exchange/archive-in'
import { openArchive } from '../../../../exchange/archive-read'
import { kindOf, lookAt } from '../../../../exchange/files'
import { readApart } from '../../../../exchange/read-apart'
import { readJson } from '../../../../http/body'
import { fileAt } from '../../../../http/data-files'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { useDataJobs } from '../../../../jobs/use-data'

/** Looks a file through: what it is, what it would bring in, everything that is wrong with it. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<DataJob> => {
  const who = signedInAs(event)
  const file = await fileAt(event)
  const { plan } = await readJson(event, lookInput)
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'look', about: file.name }, async (progress) => {
    const db = await useDatabase()
    const kind = await kindOf(file)
    if (kind.type !== 'archive') return { result: (await lookAt(db, who, file, kind, plan, progress, readApart)).look }
    const archive = await openArchive(file.path)
    try {
      const { studio, photos } = archive.manifest
      const tables = (await compareArchive(db, archive, who, progress)).filter(
        ({ fresh, same, conflict }) => fresh + same + conflict > 0,
      )
      const result: FileLook = {
        type: 'archive',
        table: null,
        looked: null,
        archive: { studio: studio.name, photos: photos.length, tables },
      }
      return { result }
    } finally {
      archive.zip.close()
    }
  })
})
