import { setResponseStatus } from 'h3'
import { importInput, type DataJob } from '../../../../../shared/schemas/data'
import { bringFile, type Through } from '../../../../exchange/bring-file'
import { readApart } from '../../../../exchange/read-apart'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { fileAt } from '../../../../http/data-files'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { useDataJobs } from '../../../../jobs/use-data'
import { useStore } from '../../../../db/use-database'
import { usePorts } from '../../../../ports'
import { change } from '../../../../write/use-change'

/** Brings a file in, all or nothing. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<DataJob> => {
  const who = signedInAs(event)
  const file = await fileAt(event)
  const { id, plan } = await readJson(event, importInput)
  const actor = actorOf(event)
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'import', about: file.name }, async (progress) => {
    const { database } = await useStore()
    const through: Through = {
      db: database,
      photos: usePorts().photos,
      reader: readApart,
      change: (what, work) => change(actor, what, work),
    }
    return { result: await bringFile(through, who, { ...file, id, plan }, progress) }
  })
})
