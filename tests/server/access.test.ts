import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { Caller, LEAD, someClient, startedCheckin, type Server } from '../support/api'

const SOME_ID = '0190a000-0000-7000-8000-000000000000'

let server: Server
beforeAll(async () => {
  server = await startServer()
})
afterAll(() => server.remove())

describe('the door', () => {
  it('is closed for unknown addresses and other methods too', async () => {
    const stranger = new Caller(server)
    expect((await stranger.send('GET', '/api/no-such-thing')).status).toBe(401)
    expect((await stranger.send('DELETE', '/api/health')).status).toBe(401)
  })

  it('sends pages to sign-in without a session and sets headers that keep scripts out', async () => {
    const page = await fetch(`${server.address}/clients`, { redirect: 'manual' })
    expect(page.status).toBe(302)
    expect(page.headers.get('location')).toBe('/sign-in?next=%2Fclients')
    const open = await fetch(`${server.address}/sign-in`)
    expect(open.headers.get('content-security-policy')).toContain("default-src 'self'")
    expect(open.headers.get('x-content-type-options')).toBe('nosniff')
  })
})

describe('signing in', () => {
  beforeAll(() => new Caller(server).setUp())

  it('opens with the right password and closes with sign-out', async () => {
    const coach = new Caller(server)
    await coach.signIn(LEAD)
    expect((await coach.send('GET', '/api/me')).status).toBe(200)
    await coach.send('POST', '/api/sign-out')
    expect((await coach.send('GET', '/api/me')).status).toBe(401)
  })

  it('refuses a forged cookie', async () => {
    const response = await fetch(`${server.address}/api/me`, { headers: { cookie: 'nuxt-session=Fe26.2**made*up' } })
    expect(response.status).toBe(401)
  })

  it('makes the studio only once', async () => {
    const second = await new Caller(server).send('POST', '/api/setup', {})
    expect(second.status).toBe(409)
  })

  it('lets only the lead coach change the studio and add people', async () => {
    const lead = new Caller(server)
    await lead.signIn(LEAD)
    const ivo = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar', role: 'coach' }
    expect((await lead.addPerson(ivo)).status).toBe(201)
    expect((await lead.addPerson(ivo)).status).toBe(409)
    const coach = new Caller(server)
    await coach.signIn(ivo)
    const { status, body } = await coach.send('PATCH', '/api/studio', {
      name: 'Mine',
      massUnit: 'kg',
      lengthUnit: 'cm',
    })
    expect(status).toBe(403)
    expect(body.message).toContain('lead coach')
  })

  it('answers 404 for a client nobody here has', async () => {
    const lead = new Caller(server)
    await lead.signIn(LEAD)
    const { clientId } = await startedCheckin(lead, someClient())
    expect((await lead.send('GET', `/api/clients/${clientId}`)).status).toBe(200)
    expect((await lead.send('GET', `/api/clients/${SOME_ID}`)).status).toBe(404)
  })
})
