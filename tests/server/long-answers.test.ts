import { request } from 'node:http'
import { gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { Caller, LEAD, someClient, type Server } from '../support/api'
import { enterVisit } from '../support/visits'

const FOLDS = [20, 14, 9, 11, 15, 20, 29]

let server: Server
let coach: Caller
const client = someClient({ name: 'Long Rower' })
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  await coach.send('POST', '/api/clients', client)
  for (let week = 12; week > 0; week -= 1)
    await enterVisit(coach, client.id, { daysAgo: 7 * week, values: FOLDS, kg: 60 })
})
afterAll(() => server.remove())

/** An answer as it travels. */
function travels(path: string, accepts: string) {
  return new Promise<{ headers: Record<string, unknown>; bytes: Buffer }>((done, failed) => {
    const headers = { ...coach.sentHeaders(), 'accept-encoding': accepts }
    request(`${server.address}${path}`, { headers }, (answer) => {
      const parts: Buffer[] = []
      answer.on('data', (part: Buffer) => parts.push(part))
      answer.on('end', () => done({ headers: answer.headers, bytes: Buffer.concat(parts) }))
    })
      .once('error', failed)
      .end()
  })
}

describe('a long answer', () => {
  const history = `/api/clients/${client.id}/history`

  it('travels zipped to whoever reads that, and says the same', async () => {
    const [plain, zipped] = [await travels(history, 'identity'), await travels(history, 'br, gzip, deflate')]
    expect(plain.headers).not.toHaveProperty('content-encoding')
    expect(zipped.headers).toMatchObject({ 'content-encoding': 'gzip', 'content-type': 'application/json' })
    expect(zipped.headers.vary).toMatch(/accept-encoding/i)
    expect(gunzipSync(zipped.bytes).equals(plain.bytes)).toBe(true)
    expect(zipped.bytes.length).toBeLessThan(plain.bytes.length / 3)
  })

  it('travels as it is where that is not read, or is short', async () => {
    for (const accepts of ['', 'br', 'gzip;q=0', 'gzip;q=0.0, br'])
      expect((await travels(history, accepts)).headers, accepts).not.toHaveProperty('content-encoding')
    const { headers, bytes } = await travels('/api/me', 'gzip')
    expect(headers).not.toHaveProperty('content-encoding')
    expect(JSON.parse(bytes.toString())).toMatchObject({ staff: { email: LEAD.email } })
  })

  it('is so for scripts too', async () => {
    const page = (await travels('/clients', 'identity')).bytes.toString()
    const [script = ''] = /\/_nuxt\/[\w-]+\.js/.exec(page) ?? []
    const { headers, bytes } = await travels(script, 'gzip')
    expect(headers['content-encoding']).toBe('gzip')
    expect(gunzipSync(bytes).equals((await travels(script, 'identity')).bytes)).toBe(true)
  })
})
