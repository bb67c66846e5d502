import { randomUUID } from 'node:crypto'

const rest = (ms) => new Promise((wake) => setTimeout(wake, ms))
const SITES = ['chest', 'midaxillary', 'triceps', 'subscapular', 'abdominal', 'suprailiac', 'thigh']

/**
 * Somebody at a device: keeps cookies, and sends the same thing again until the server answers, as the application does.
 * @param {{ address: string }} server
 * @param {{ refused: string[], taken: Record<string, number[]> }} seen
 */
export function caller(server, seen) {
  const cookies = new Map()
  return async (method, path, body, kind = null) => {
    for (let again = 0; ; again += 1) {
      const began = performance.now()
      try {
        const response = await fetch(server.address + path, {
          method,
          signal: AbortSignal.timeout(30_000),
          headers: {
            origin: server.address,
            'content-type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json',
            cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
          },
          ...(body ? { body: body instanceof Uint8Array ? body : JSON.stringify(body) } : {}),
        })
        for (const line of response.headers.getSetCookie()) {
          const [name, value] = line.split(';')[0].split(/=(.*)/s)
          cookies.set(name, value)
        }
        const isJson = response.headers.get('content-type')?.includes('json')
        const answer = isJson ? await response.json() : await response.arrayBuffer()
        if (kind) (seen.taken[kind] ??= []).push(performance.now() - began)
        if (response.ok) return answer
        if (response.status < 500) {
          seen.refused.push(
            `${method} ${path.replace(/[\da-f-]{36}/g, '*')}: ${response.status} ${answer?.message ?? ''}`,
          )
          return null
        }
        if (response.status === 500) seen.refused.push(`${method} ${path}: 500`)
      } catch {
        // Killed, or starting: what was sent is sent again under the same id.
      }
      await rest(Math.min(2_000, 100 * 2 ** again))
    }
  }
}

/** A new client of the studio. */
export async function newClient(call, name) {
  const id = randomUUID()
  const about = {
    sex: 'female',
    birthDate: '1992-03-14',
    heightCm: 174,
    usualSide: 'right',
    notes: '',
    consentOn: '2026-01-10',
  }
  await call('POST', '/api/clients', { id, name, ...about })
  return id
}

/** A coach who measures until the time is over: a reading every few seconds, a look at something after each. */
export async function measureUntil(call, i, until, pauseMs, acknowledged) {
  const clientId = await newClient(call, `Rower ${i}`)
  await rest((pauseMs * (i % 50)) / 50)
  while (Date.now() < until) {
    const checkinId = randomUUID()
    const startedAt = new Date().toISOString()
    if (
      !(await call('POST', `/api/clients/${clientId}/checkins`, {
        id: checkinId,
        protocolId: 'laboratory-7',
        startedAt,
      }))
    )
      return
    const ids = []
    acknowledged.push({ call, checkinId, ids })
    for (let n = 0; n < 21 && Date.now() < until; n += 1) {
      const id = randomUUID()
      const reading = {
        id,
        site: SITES[n % 7],
        round: 1 + Math.floor(n / 7),
        value: 8 + ((n + i) % 20),
        unit: 'mm',
        source: 'pad',
      }
      const facts = { readings: [{ ...reading, takenAt: new Date().toISOString() }], strikes: [] }
      const answer = await call('POST', `/api/checkins/${checkinId}/events`, facts, 'reading')
      if (answer?.stored?.includes(id)) ids.push(id)
      const looks = ['/api/floor', '/api/clients', `/api/clients/${clientId}/history`, '/api/me']
      await call('GET', looks[n % 4], null, 'look')
      await rest(pauseMs / 2 + (pauseMs / 2) * Math.random())
    }
    await call('PATCH', `/api/checkins/${checkinId}`, { finished: true })
  }
}

/** A client at home with their link: a weight now and then, each for a day of its own; a phone may be sixty days behind. */
export async function weighUntil(lead, server, seen, i, until, everyMs, acknowledged) {
  const clientId = await newClient(lead, `Home ${i}`)
  const made = await lead('POST', `/api/clients/${clientId}/links`, { scope: ['weigh-ins'], days: 30 })
  const token = made.link.split('#')[1]
  const call = caller(server, seen)
  await call('POST', '/api/link/open', { token })
  await call('POST', '/api/link/pin', { token, pin: '4719' })
  const days = []
  acknowledged.push({ clientId, days })
  await rest(everyMs * Math.random())
  for (let n = 0; Date.now() < until && n < 60; n += 1) {
    const day = new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10)
    const answer = await call(
      'POST',
      '/api/hand-in/weigh-ins',
      { id: randomUUID(), day, value: 70 + (n % 3), unit: 'kg' },
      'weight',
    )
    if (answer) days.push(day)
    await rest(everyMs / 2 + everyMs * Math.random())
  }
}
