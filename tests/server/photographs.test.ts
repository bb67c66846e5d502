import { existsSync, mkdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { ClientHistory } from '../../shared/schemas/following'
import type { Photo } from '../../shared/schemas/photo'
import { Caller, LEAD, type Server, someClient, startedCheckin } from '../support/api'

let server: Server
let coach: Caller
const rower = someClient({ name: 'Pictured Rower', photoConsentOn: '2026-01-10' })
let checkinId = ''
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  ;({ checkinId } = await startedCheckin(coach, rower))
})
afterAll(() => server.remove())

const takenAt = '2026-11-20T17:00:00.000Z'
function picture(tone: string): Promise<Buffer> {
  return sharp({ create: { width: 60, height: 90, channels: 3, background: tone } })
    .jpeg()
    .toBuffer()
}
const send = (id: string, bytes: Buffer, into = checkinId) =>
  coach.sendBytes<Photo & { message: string }>(
    `/api/checkins/${into}/photos?${new URLSearchParams({ id, pose: 'front', takenAt })}`,
    bytes,
  )
const fileOf = (id: string) => join(server.dataDir, 'photos', `${id}.jpg`)

describe('a photograph', () => {
  it('sent again is the same one; another picture under its id, or elsewhere, is refused and keeps its bytes', async () => {
    const id = uuid()
    expect((await send(id, await picture('#998877'))).status).toBe(201)
    const kept = readFileSync(fileOf(id))
    expect((await send(id, await picture('#998877'))).status).toBe(201)
    expect((await send(id, await picture('#112233'))).status).toBe(409)
    const other = await startedCheckin(coach, someClient({ name: 'Other', photoConsentOn: '2026-01-10' }))
    expect((await send(id, await picture('#998877'), other.checkinId)).status).toBe(409)
    expect(readFileSync(fileOf(id))).toEqual(kept)
  })

  it('keeps its check-in from being thrown away', async () => {
    const { status, body } = await coach.send('DELETE', `/api/checkins/${checkinId}`)
    expect(status).toBe(409)
    expect(body.message).toContain('photographs')
  })

  it('of more than fifty million pixels is refused, however small its file', async () => {
    const size = { width: 7_200, height: 7_000 }
    const trap = await sharp({ create: { ...size, channels: 3, background: '#ffffff' } })
      .png({ progressive: true, compressionLevel: 9 })
      .toBuffer()
    expect(trap.length).toBeLessThan(2_000_000)
    const { status, body } = await send(uuid(), trap)
    expect(status).toBe(413)
    expect(body.message).toContain('50 million pixels')
  }, 120_000)

  it('is hidden when consent is withdrawn, and shows again when it is given anew', async () => {
    const id = uuid()
    await send(id, await picture('#445566'))
    const { id: clientId, ...form } = rower
    const history = async () => (await coach.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body
    const consent = async (photoConsentOn: string | null) => {
      const { version } = (await history()).client
      await coach.send('PATCH', `/api/clients/${clientId}`, { ...form, photoConsentOn, version })
    }
    await consent(null)
    expect((await history()).photos).toEqual([])
    expect((await coach.picture(`/api/photos/${id}`)).status).toBe(404)
    expect((await coach.send('PATCH', `/api/photos/${id}`, { x: 0, y: 0, scale: 1 })).status).toBe(404)
    await consent('2026-02-01')
    expect((await history()).photos.map((one) => one.id)).toContain(id)
  })

  it('whose upload was cut off leaves no bytes behind: they are swept at the next start, fresh ones are not', async () => {
    const [orphan, fresh, kept] = [uuid(), uuid(), uuid()]
    await send(kept, await picture('#667788'))
    mkdirSync(join(server.dataDir, 'photos'), { recursive: true })
    for (const id of [orphan, fresh]) writeFileSync(fileOf(id), await picture('#000000'))
    writeFileSync(`${fileOf(orphan)}.17.part`, 'half of it')
    const hourAgo = new Date(Date.now() - 3_600_000)
    utimesSync(fileOf(orphan), hourAgo, hourAgo)
    utimesSync(fileOf(kept), hourAgo, hourAgo)
    await server.kill()
    await server.start()
    for (let i = 0; i < 100 && existsSync(fileOf(orphan)); i += 1) await new Promise((wake) => setTimeout(wake, 100))
    expect([orphan, fresh, kept].map((id) => existsSync(fileOf(id)))).toEqual([false, true, true])
    expect(existsSync(`${fileOf(orphan)}.17.part`)).toBe(false)
  })
})
