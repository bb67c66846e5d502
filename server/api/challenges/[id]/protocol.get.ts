import { setHeader } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { challengeFacts } from '../../../http/challenges'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { groupsOf, standingOfGroup } from '../../../repositories/challenge-facts'
import { findMe } from '../../../repositories/staff'
import { printProtocol } from '../../../take-home/print-apart'

/** The closing protocol: how it was measured, who stood where with what chance, who the prize goes to. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const facts = await challengeFacts(event)
  const me = await findMe(await useDatabase(), signedInAs(event))
  const pdf = await printProtocol({
    studio: me?.studio.name ?? '',
    ...facts,
    groups: groupsOf(facts.entries).map(({ name, entries }) => ({ name, standings: standingOfGroup(entries) })),
  })
  setHeader(event, 'content-type', 'application/pdf')
  setHeader(event, 'content-disposition', 'attachment; filename="challenge.pdf"')
  return pdf
})
