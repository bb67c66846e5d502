import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { Caller, LEAD, type Server } from '../support/api'

let server: Server
beforeAll(async () => {
  server = await startServer({ filled: 'studio', env: { NUXT_TRUSTED_PROXIES: '192.0.2.1, 127.0.0.1' } })
  await new Caller(server).signIn(LEAD)
})
afterAll(() => server.remove())

/** Wrong passwords for made-up accounts, one after another, as a proxy hands them on. */
async function guesses(forwardedFor: (i: number) => string, who: string): Promise<number[]> {
  const statuses: number[] = []
  for (let i = 0; i < 40; i += 1) {
    const body = { email: `${who}-${i}@reedwater.example`, password: 'x' }
    const { status } = await new Caller(server).send('POST', '/api/sign-in', body, undefined, {
      'x-forwarded-for': forwardedFor(i),
    })
    statuses.push(status)
  }
  return statuses
}

describe('behind a proxy the studio has named', () => {
  it('guesses are counted by the address the proxy saw, whatever the guesser wrote before it', async () => {
    expect(await guesses((i) => `198.51.100.${i}`, 'many')).not.toContain(429)
    expect(await guesses((i) => `198.51.100.${100 + i}, 203.0.113.7`, 'forger')).toContain(429)
    // A proxy behind the proxy, named too, is no guesser.
    expect(await guesses((i) => `198.51.100.${150 + i}, 192.0.2.1`, 'chained')).not.toContain(429)
  }, 60_000)

  it('its name and scheme are the application’s own: writes from there pass, cookies are marked Secure', async () => {
    const { email, password } = LEAD
    const signIn = (origin: string) =>
      fetch(`${server.address}/api/sign-in`, {
        method: 'POST',
        body: JSON.stringify({ email, password }),
        headers: {
          'content-type': 'application/json',
          'x-forwarded-proto': 'https',
          'x-forwarded-host': 'studio.reedwater.example',
          'x-forwarded-for': '198.51.100.9',
          origin,
        },
      })
    expect((await signIn('http://studio.reedwater.example')).status).toBe(403)
    expect((await signIn(server.address)).status).toBe(403)
    const answer = await signIn('https://studio.reedwater.example')
    expect(answer.status).toBe(200)
    const cookies = answer.headers.getSetCookie()
    expect(cookies.length).toBeGreaterThan(0)
    expect(cookies.filter((cookie) => !/; Secure/i.test(cookie))).toEqual([])
  })
})
