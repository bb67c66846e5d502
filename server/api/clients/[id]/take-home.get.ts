import { defineEventHandler, getQuery, setHeader } from 'h3'
import { isNeutral } from '../../../../shared/neutral'
import { takeHomeQuery } from '../../../../shared/schemas/following'
import { unitsOf } from '../../../../shared/units-of'
import { useDatabase } from '../../../db/use-database'
import { parsed } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { findHistory } from '../../../repositories/history'
import { findMe } from '../../../repositories/staff'
import { printApart } from '../../../take-home/print-apart'

/** The page to take home, as PDF. Always neutral for clients who are to see no percent and no weight. */
export default defineEventHandler(async (event) => {
  const client = await clientAt(event)
  const query = parsed(takeHomeQuery, getQuery(event))
  const who = signedInAs(event)
  const db = await useDatabase()
  const me = await findMe(db, who)
  if (!me) throw failure(401, 'Please sign in.')
  const printed = await printApart({
    history: await findHistory(db, who, client),
    studio: me.studio.name,
    units: unitsOf(me),
    fromId: query.from ?? null,
    toId: query.to ?? null,
    neutral: query.neutral === 'true' || isNeutral(client),
  })
  if (!printed) throw failure(409, 'There is no finished check-in to take home yet.')
  const name = client.name
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .toLowerCase()
  setHeader(event, 'content-type', 'application/pdf')
  setHeader(event, 'content-disposition', `attachment; filename="${name}-${printed.day}.pdf"`)
  return printed.pdf
})
