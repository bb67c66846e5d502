import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyone, fromElsewhere, NAMES, type Everyone, type Who } from '../support/everyone'
import { fromSchema } from '../support/from-schema'
import { HOSTILE_TEXTS, HOSTILE_TIMES, hostileBody, hostileValue } from '../support/hostile'
import { routesWithSchemas, type FoundRoute } from '../support/routes'

/** Bodies of each kind at each route and session; ROUTE_RUNS tries more. */
const RUNS = Number(process.env.ROUTE_RUNS ?? 1)

let studio: Everyone
let routes: FoundRoute[] = []
let ids: string[] = []

beforeAll(async () => {
  studio = await everyone()
  ids = Object.values(studio.known).flat()
  // Streams of events do not end.
  routes = (await routesWithSchemas()).filter(({ parts }) => parts.at(-1) !== 'stream')
}, 120_000)
afterAll(() => studio.server.remove())

const nameOf = ({ method, parts }: FoundRoute) => `${method} /${parts.map((part) => part ?? '*').join('/')}`

/** Ids that fit the place, others of ours, one of nobody's, and what is no id. */
function pathOf({ parts }: FoundRoute): fc.Arbitrary<string> {
  const choices = parts.map((part, i) => {
    if (part !== null) return fc.constant(part)
    const own = studio.known[parts[i - 1] ?? ''] ?? []
    const odd = fc.constantFrom('0', '..%00', '%F0%9F%98%80', 'x'.repeat(300), 'triceps')
    return fc.oneof(
      { weight: 8, arbitrary: fc.constantFrom(...(own.length > 0 ? own : ids)) },
      { weight: 1, arbitrary: fc.constantFrom(...ids, uuid()) },
      { weight: 1, arbitrary: odd },
    )
  })
  return fc.tuple(...choices).map((chosen) => `/${chosen.join('/')}`)
}

/** What would end the trying itself: everybody would have to set a code up. */
function harmless(route: FoundRoute, body: unknown): unknown {
  if (nameOf(route) !== 'PUT /api/studio/rules' || typeof body !== 'object' || body === null) return body
  return Object.fromEntries(Object.entries(body).filter(([key]) => key !== 'secondRequired'))
}

/** Bodies that fit the schema, that nearly do, and that are anything at all. */
function bodiesOf(route: FoundRoute): fc.Arbitrary<unknown> {
  if (!route.body) return fc.constant(undefined)
  const fits = fromSchema(route.body, ids)
  const nearly = fits.chain((body) => hostileBody(body))
  const any = fc.oneof(hostileValue, fc.jsonValue())
  return fc
    .oneof({ weight: 3, arbitrary: fits }, { weight: 3, arbitrary: nearly }, { weight: 1, arbitrary: any })
    .map((body) => harmless(route, body))
}

/** Questions that fit, that nearly do, and what nobody asks. */
function questionOf(route: FoundRoute): fc.Arbitrary<string> {
  const text = fc.constantFrom(...HOSTILE_TEXTS, ...HOSTILE_TIMES).map((one) => one.slice(0, 400).toWellFormed())
  const asText = (one: unknown) => (typeof one === 'object' ? JSON.stringify(one) : String(one))
  const odd = fc.dictionary(fc.constantFrom('q', 'day', 'from', '__proto__'), text, { maxKeys: 1 })
  const asked = route.query
    ? fromSchema(route.query, ids).chain((fits) =>
        fc.oneof(fc.constant(fits), hostileBody(fits)).map((one) => (typeof one === 'object' && one ? one : {})),
      )
    : odd
  return asked.map((question) => {
    const given = Object.entries(question as object).map(([key, one]): [string, string] => [key, asText(one)])
    return given.length > 0 ? `?${new URLSearchParams(given).toString()}` : ''
  })
}

/** A hash of a PIN or a password takes a quarter of a second. */
const isSlow = (route: FoundRoute) => /pin|password|staff$|sign-in|link/.test(nameOf(route))

async function tryEvery(who: Who, hidden: readonly string[]): Promise<Map<number, number>> {
  const { caller, enter } = studio.callers[who]
  const seen = new Map<number, number>()
  for (const route of routes) {
    const request = fc.tuple(pathOf(route), questionOf(route), bodiesOf(route))
    await fc.assert(
      fc.asyncProperty(request, async ([path, question, body]) => {
        const { status, text } = await caller.send(route.method, path + question, body, undefined, fromElsewhere())
        seen.set(status, (seen.get(status) ?? 0) + 1)
        const what = `${who}: ${route.method} ${path}${question} with ${JSON.stringify(body)}: ${text.slice(0, 300)}`
        expect(status, what).toBeLessThan(500)
        if (status === 429) expect(text).toContain('Too many wrong passwords')
        for (const name of hidden) expect(text.includes(name), what).toBe(false)
      }),
      { numRuns: isSlow(route) ? Math.min(RUNS, 3) : RUNS * 3, endOnFailure: true },
    )
    // Signed out, locked or left by what was tried: in again.
    const own = who === 'client' ? '/api/hand-in' : '/api/me'
    if (who !== 'stranger' && (await caller.send('GET', own)).status !== 200) await enter()
  }
  return seen
}

describe('values made from a schema', () => {
  it('fit it, for every route that reads a body', () => {
    const share = routes.flatMap((route) => {
      if (!route.body) return []
      const made = fc.sample(fromSchema(route.body, ids), { numRuns: 60, seed: 20261127 })
      return [{ route: nameOf(route), fits: made.filter((body) => route.body?.safeParse(body).success).length }]
    })
    expect(share.length).toBeGreaterThan(60)
    // What asks for several fields to agree is met by chance, and by hand in tests/server/hostile.
    const never = share.filter(({ fits }) => fits === 0).map(({ route }) => route)
    // How the sites, ways and pens of a study go together is beyond chance: tests/server/studies.
    expect(never).toEqual(['POST /api/studies'])
  })
})

describe('every route, asked with bodies and questions made from its schema', () => {
  const all = Object.values(NAMES)
  it.each([
    ['a stranger', 'stranger', all],
    ['a client at their link', 'client', [NAMES.ivos, NAMES.runas, NAMES.leftAlone]],
    ['a recorder', 'recorder', [NAMES.runas, NAMES.linked, NAMES.leftAlone]],
    ['a coach kept to their own', 'coach', [NAMES.runas, NAMES.linked, NAMES.leftAlone]],
    ['a lead', 'lead', []],
  ] as const)(
    'fails at none and tells nothing of others: %s',
    { timeout: 120_000 + RUNS * 60_000 },
    async (_, who, hidden) => {
      const seen = await tryEvery(who, hidden)
      if (who === 'stranger') expect([...seen.keys()].some((status) => status === 401)).toBe(true)
      // Something was answered, and something refused: the trying reached the routes themselves.
      else expect([seen.get(200) ?? 0, seen.get(422) ?? seen.get(403) ?? 0].every((count) => count > 5)).toBe(true)
    },
  )
})
