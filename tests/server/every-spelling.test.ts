import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { declaredRoutes } from '../../scripts/lib/declared-routes.mjs'
import { isCanonical } from '../../server/http/canonical'
import type { Problem } from '../../shared/schemas/problem'
import { Caller, LEAD, type Server } from '../support/api'
import { everyone, fromElsewhere, NAMES, type Everyone, type Who } from '../support/everyone'
import { sendRaw } from '../support/raw-request'

const ID = '0190a000-0000-7000-8000-00000000abcd'
/** What ends or changes the caller's own session, or asks everyone for a second factor, when it is let through. */
const ENDS =
  /sign-out|\/lock|me\/sessions|me\/password|me\/pin|second-factor|hand-in\/leave|studio\/rules|link\/|sign-in|setup/

type Route = ReturnType<typeof declaredRoutes>[number]

/** Routes but for the catch-all and for streams, which do not end. */
const routes = declaredRoutes().filter(({ file, parts }) => !file.includes('[...]') && parts.at(-1) !== 'stream')

const encode = (text: string) => `%${text.charCodeAt(0).toString(16)}${text.slice(1)}`

/** The path of a route in twelve spellings: the first is ours, the others a router may read as the same. */
function spellings({ parts }: Route, address: string): string[] {
  const plain = parts.map((part) => part ?? ID)
  const path = `/${plain.join('/')}`
  const [first = '', ...rest] = plain
  const last = plain.at(-1) ?? ''
  const before = plain.slice(0, -1).map((part) => `/${part}`)
  return [
    path,
    `/${[encode(first), ...rest].join('/')}`,
    `${before.join('')}/${encode(last)}`,
    `${path}/`,
    `/${path}`,
    `/${first}//${rest.join('/')}`,
    `/./${plain.join('/')}`,
    `/x/../${plain.join('/')}`,
    `/${first}%2f${rest.join('/')}`,
    `${path}%20`,
    // A calendar's secret is the one part in which capitals count.
    first === 'feed' ? `${path};x` : path.includes(ID) ? path.replace(ID, ID.toUpperCase()) : path.toUpperCase(),
    `${address}${path}`,
  ]
}

/** What a route has to answer somebody to whom it does not open; null: it opens. */
function refusal({ access }: Route, who: Who, proof: 'fresh' | 'stale' | 'no second'): number | string | null {
  if (access.access === 'open') return null
  if (access.access === 'link') return who === 'client' ? null : 401
  if (who === 'stranger' || who === 'client') return 401
  if (access.whenLocked) return null
  if (access.access !== 'recorder' && who === 'recorder') return 'A recorder writes readings down'
  if (access.access === 'lead' && who === 'coach') return 'Only the lead coach can do this.'
  if (proof === 'no second' && access.proof !== 'none' && !access.beforeSecond) return 'asks for a code or a passkey'
  if (proof === 'stale' && access.proof === 'fresh') return 'Please confirm that it is you'
  return null
}

/** Asks every route in every spelling as one caller. */
async function tryAll(
  { server, callers }: Pick<Everyone, 'server'> & { callers: Partial<Everyone['callers']> },
  who: Who,
  proof: 'fresh' | 'stale' | 'no second',
): Promise<void> {
  const { caller, enter } = callers[who] ?? {}
  if (!caller || !enter) throw new Error(`Nobody here is ${who}.`)
  for (const route of routes) {
    const [plain = '', ...others] = spellings(route, server.address)
    const send = (target: string) =>
      sendRaw(server.address, {
        method: route.method,
        target,
        headers: { ...caller.sentHeaders(), ...fromElsewhere(), 'content-type': 'application/json' },
        body: route.method === 'GET' ? undefined : '{}',
      })
    const wanted = refusal(route, who, proof)
    if (wanted !== null || !ENDS.test(plain)) {
      const { status, text } = await send(plain)
      const said = `${who} (${proof}): ${route.method} ${plain}: ${status} ${text.slice(0, 200)}`
      if (typeof wanted === 'number') expect(status, said).toBe(wanted)
      else if (wanted !== null) expect([status, text.includes(wanted)], said).toEqual([403, true])
      else
        expect(
          /"confirm":true|"second":true|writes readings down|Only the lead coach can do this|Please sign in/.test(text),
          said,
        ).toBe(false)
    }
    const answers = await Promise.all(others.map(async (target) => ({ target, ...(await send(target)) })))
    for (const { target, status, text } of answers) {
      const said = `${who} (${proof}): ${route.method} ${target}: ${status} ${text.slice(0, 200)}`
      expect(status, said).toBe(404)
      for (const name of Object.values(NAMES)) expect(text.includes(name), said).toBe(false)
    }
  }
  // Nothing of that ended the session.
  if (who !== 'stranger' && proof === 'fresh') {
    const own = who === 'client' ? '/api/hand-in' : '/api/me'
    const { status } = await caller.send<Problem>('GET', own)
    if (status !== 200) await enter()
    expect([who, status]).toEqual([who, 200])
  }
}

describe('every route in twelve spellings', () => {
  let studio: Everyone
  beforeAll(async () => (studio = await everyone()), 120_000)
  afterAll(() => studio.server.remove())

  it.each<Who>(['stranger', 'client', 'recorder', 'coach', 'lead'])(
    'opens as it declares and only as we spell it: %s',
    (who) => tryAll(studio, who, 'fresh'),
    120_000,
  )

  it('asks a coach for the second factor the studio wants, however the address is spelled', async () => {
    await studio.callers.lead.caller.send('PUT', '/api/studio/rules', { secondRequired: true })
    await tryAll(studio, 'coach', 'no second')
  }, 120_000)
})

describe('with a proof of identity that is no longer fresh', () => {
  let server: Server
  beforeAll(async () => {
    server = await startServer({
      filled: 'studio',
      env: { CONFIRM_AFTER_MINUTES: String(1 / 60), NUXT_TRUSTED_PROXIES: '127.0.0.1' },
    })
  })
  afterAll(() => server.remove())

  it('asks a lead for a new one, however the address is spelled', async () => {
    const caller = new Caller(server)
    await caller.signIn(LEAD)
    await new Promise((done) => setTimeout(done, 1_100))
    await tryAll({ server, callers: { lead: { caller, enter: () => caller.signIn(LEAD) } } }, 'lead', 'stale')
  }, 120_000)
})

describe('what is declared', () => {
  it('is declared by every route, or the application does not build', () => {
    expect(routes.length).toBeGreaterThan(160)
    const root = mkdtempSync(join(tmpdir(), 'oak-pinch-routes-'))
    const write = (source: string) => {
      mkdirSync(join(root, 'server/api'), { recursive: true })
      writeFileSync(join(root, 'server/api/secret.get.ts'), source)
    }
    write(`export default defineRoute({ access: 'coach', proof: 'second' }, work)\n`)
    expect(declaredRoutes(root).map(({ access }) => access)).toEqual([{ access: 'coach', proof: 'second' }])
    for (const silent of [
      'defineEventHandler(work)',
      'defineRoute(access, work)',
      'defineRoute({ ...access }, work)',
    ]) {
      write(`export default ${silent}\n`)
      expect(() => declaredRoutes(root)).toThrow('server/api/secret.get.ts')
    }
    rmSync(root, { recursive: true })
  })

  it('is open, or for a link, for these routes alone', () => {
    const of = (access: string) =>
      routes
        .filter((one) => one.access.access === access)
        .map(({ method, parts }) => `${method} /${parts.map((part) => part ?? '*').join('/')}`)
        .sort()
    expect(of('open')).toEqual([
      'GET /api/health',
      'GET /api/metrics',
      'GET /api/ready',
      'GET /api/setup',
      'GET /feed/*',
      'POST /api/board',
      'POST /api/link/open',
      'POST /api/link/pin',
      'POST /api/password-reset',
      'POST /api/setup',
      'POST /api/sign-in',
      'POST /api/sign-in/passkey',
      'POST /api/sign-in/passkey/begin',
      'POST /api/sign-out',
      'POST /api/stop-mail',
    ])
    expect(of('link').every((route) => route.includes(' /api/hand-in'))).toBe(true)
  })

  it('notes a look wherever one client is read', () => {
    const reads = routes.filter(
      ({ method, parts }) => method === 'GET' && ['clients', 'checkins'].includes(parts[1] ?? '') && parts[2] === null,
    )
    expect(reads.length).toBeGreaterThan(6)
    expect(reads.filter(({ access }) => access.looked !== 'client').map(({ file }) => file)).toEqual([])
  })
})

describe('a path as we spell it', () => {
  it.each([
    '/',
    '/clients',
    '/api/clients?q=%C3%98sk',
    `/api/clients/${ID}`,
    '/_nuxt/Aq-9.js',
    '/feed/aB-_c.ics',
    '/mark.svg',
  ])('is %s', (target) => expect(isCanonical(target)).toBe(true))
  it.each([
    '',
    '//',
    '/clients/',
    '/a//b',
    '/%63lients',
    '/a/./b',
    '/a/..',
    '/api/Clients',
    '/a\\b',
    '/a;b',
    '*',
    'http://x/',
    '/a b',
    '/ä',
  ])('is not %s', (target) => expect(isCanonical(target)).toBe(false))
})
