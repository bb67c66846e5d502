import { setHeader } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findProgress } from '../../../repositories/progress'
import { findMe } from '../../../repositories/staff'
import { printAssessor } from '../../../take-home/print-apart'

/** An assessor's record on paper: their own, or for a lead anybody's. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is nobody like that here.'
  const id = idParam(event, sentence)
  if (who.role !== 'lead' && id !== who.staffId) throw failure(403, 'Only the lead coach sees somebody else’s record.')
  const db = await useDatabase()
  const [progress] = await findProgress(db, who, { only: id })
  if (!progress) throw failure(404, sentence)
  const me = await findMe(db, who)
  const pdf = await printAssessor({ studio: me?.studio.name ?? '', day: todayAt(event), progress })
  setHeader(event, 'content-type', 'application/pdf')
  setHeader(event, 'content-disposition', 'attachment; filename="assessor.pdf"')
  return pdf
})
