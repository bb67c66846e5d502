import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { PhotoStoreFailed, s3FromEnvironment, s3Photos } from '../../server/ports/s3-photos'
import { Caller, LEAD, type Server, someClient, startedCheckin } from '../support/api'
import { S3_KEYS, s3StandIn, type StandIn } from '../support/s3-stand-in'
import { until } from '../support/until'

let stand: StandIn
beforeAll(async () => {
  stand = await s3StandIn()
})
afterAll(() => stand.close())
const settings = () => ({ endpoint: stand.endpoint, prefix: 'photos/', ...S3_KEYS })

describe('a store of photographs that speaks S3', () => {
  it('keeps, gives, lists past one page and removes; every request signed as another library signs it', async () => {
    const store = s3Photos({ ...settings(), prefix: 'some/' })
    const ids = Array.from({ length: 5 }, () => uuid()).sort()
    for (const id of ids) await store.put(id, Buffer.from(`picture ${id}`))
    expect(String(await store.get(ids[2] ?? ''))).toBe(`picture ${ids[2]}`)
    expect(await store.get(uuid())).toBeNull()
    const listed = await store.list()
    expect(listed.map(({ id }) => id)).toEqual(ids)
    expect(listed.every(({ at }) => Math.abs(at - Date.now()) < 60_000)).toBe(true)
    await store.remove(ids[0] ?? '')
    await store.remove(ids[0] ?? '')
    expect((await store.list()).map(({ id }) => id)).toEqual(ids.slice(1))
  })

  it('is asked again when it stumbles, and says so when it stays down or refuses', async () => {
    const store = s3Photos({ ...settings(), prefix: 'more/' })
    stand.failNext(2)
    const id = uuid()
    await store.put(id, Buffer.from('kept'))
    expect(String(await store.get(id))).toBe('kept')
    const stranger = s3Photos({ ...settings(), secret: 'another' })
    await expect(stranger.put(uuid(), Buffer.from('x'))).rejects.toThrow(PhotoStoreFailed)
    await expect(stranger.list()).rejects.toThrow('could not list what it holds (it answered 403)')
  })

  it('is named whole or not at all', () => {
    expect(s3FromEnvironment({})).toBeNull()
    expect(() => s3FromEnvironment({ S3_ENDPOINT: 'https://s3.example' })).toThrow('S3_BUCKET')
  })
})

describe('the application with such a store', () => {
  let server: Server
  let coach: Caller
  beforeAll(async () => {
    server = await startServer({
      filled: 'studio',
      env: {
        S3_ENDPOINT: stand.endpoint,
        S3_BUCKET: S3_KEYS.bucket,
        S3_KEY_ID: S3_KEYS.keyId,
        S3_SECRET: S3_KEYS.secret,
        S3_REGION: S3_KEYS.region,
      },
    })
    coach = new Caller(server)
    await coach.signIn(LEAD)
  })
  afterAll(() => server.remove())
  const picture = () =>
    sharp({ create: { width: 60, height: 90, channels: 3, background: '#998877' } })
      .jpeg()
      .toBuffer()

  it('puts bytes there before their row, gives them back and takes them away', async () => {
    const { checkinId } = await startedCheckin(coach, someClient({ photoConsentOn: '2026-01-10' }))
    const id = uuid()
    const path = (one: string) =>
      `/api/checkins/${checkinId}/photos?${new URLSearchParams({ id: one, pose: 'front', takenAt: '2026-11-20T17:00:00.000Z' })}`
    expect((await coach.sendBytes(path(id), await picture())).status).toBe(201)
    expect(stand.objects.has(`photos/${id}.jpg`)).toBe(true)
    const given = await coach.picture(`/api/photos/${id}`)
    expect(given.bytes.equals(stand.objects.get(`photos/${id}.jpg`) ?? Buffer.alloc(0))).toBe(true)
    // While the store is down nothing is noted that is not there.
    const lost = uuid()
    stand.failNext(20)
    const refused = await coach.sendBytes(path(lost), await picture())
    expect([refused.status, refused.body.message]).toEqual([503, expect.stringContaining('this picture was not taken')])
    stand.failNext(0)
    expect((await coach.send('GET', `/api/photos/${lost}`)).status).toBe(404)
    expect((await coach.send('DELETE', `/api/photos/${id}`)).status).toBeLessThan(300)
    await until(
      async () => stand.objects.has(`photos/${id}.jpg`),
      (there) => !there,
    )
  })
})
