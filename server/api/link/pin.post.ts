import { v7 as uuid } from 'uuid'
import { linkPin } from '../../../shared/schemas/link'
import { LINK_SENTENCES, phoneOf, sealLink } from '../../http/at-link'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { linkOfToken } from '../../http/link-of-token'
import { hashInTurn, isRight } from '../../http/password'
import { defineRoute } from '../../http/route'
import { choosePin, countPin, startLinkSession, MOST_WRONG_PINS } from '../../repositories/client-links'
import { change } from '../../write/use-change'

/** PINs everybody tries first. */
function isPlain(pin: string): boolean {
  return /^(\d)\1+$/.test(pin) || '0123456789'.includes(pin) || '9876543210'.includes(pin)
}

/** Chooses the PIN of a link at its first opening, or gives it on another phone; signs this phone in. */
export default defineRoute({ access: 'open' }, async (event) => {
  const { token, pin } = await readJson(event, linkPin)
  const link = await linkOfToken(event, token)
  const actor = { kind: 'link', clientId: link.clientId, studioId: link.studioId } as const
  const session = { id: uuid(), device: phoneOf(event) }
  const about = { kind: 'link.pin', subjectId: link.id } as const
  if (link.pinHash === null) {
    const plain = 'Everybody tries this one first: please choose another.'
    if (isPlain(pin)) throw failure(422, plain, [{ field: 'pin', message: plain }])
    const pinHash = await hashInTurn(pin)
    await change(actor, about, async (tx) => {
      if (!(await choosePin(tx, link.id, pinHash)))
        throw failure(409, 'Somebody has chosen a PIN for this link a moment ago. Please open it again.')
      await startLinkSession(tx, link.id, session)
    })
  } else {
    await change(actor, { kind: 'link.counted' }, async (tx) => {
      if (!(await countPin(tx, link.id))) throw failure(410, LINK_SENTENCES.locked)
    })
    if (!(await isRight(link.pinHash, pin))) {
      await change(actor, { kind: 'link.wrong-pin', subjectId: link.id }, () => Promise.resolve())
      const sentence = `This is not the PIN of this link. After ${MOST_WRONG_PINS} wrong ones in a row it is locked until your coach renews it.`
      throw failure(422, sentence, [{ field: 'pin', message: sentence }])
    }
    await change(actor, about, (tx) => startLinkSession(tx, link.id, session))
  }
  await sealLink(event, session.id)
  return { ok: true }
})
