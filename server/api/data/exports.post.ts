import { setResponseStatus } from 'h3'
import { format } from 'date-fns'
import { exportInput, type DataJob } from '../../../shared/schemas/data'
import { useDatabase, useStore } from '../../db/use-database'
import { EXPORTS, writeExport } from '../../exchange/exports'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { plainName } from '../../http/file-name'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { useDataJobs } from '../../jobs/use-data'
import { usePorts } from '../../ports'
import { findClient } from '../../repositories/clients'
import { findMe } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Takes the studio's data out, or one client's, in an open format. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<DataJob> => {
  const who = signedInAs(event)
  const input = await readJson(event, exportInput)
  const db = await useDatabase()
  const client = input.clientId ? await findClient(db, who, input.clientId) : null
  if (input.clientId && !client) throw failure(404, 'There is no such client here.')
  const clientId = input.format === 'archive' ? null : (client?.id ?? null)
  // Who took what out is on record before the first byte is written.
  await change(actorOf(event), { kind: 'data.exported', ...(clientId ? { clientId } : {}) }, () => Promise.resolve())
  const studio = (await findMe(db, who))?.studio.name ?? ''
  const name = `${plainName(client?.name ?? studio)}-${format(new Date(), 'yyyy-MM-dd')}.${EXPORTS[input.format]}`
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'export', about: name }, async (progress, place) => {
    const path = await place()
    await writeExport(
      input.format,
      path,
      { store: await useStore(), photos: usePorts().photos, who, clientId },
      progress,
    )
    return { file: { path, name } }
  })
})
