import { v7 as uuid } from 'uuid'
import type { startServer } from '../../scripts/lib/server-process.mjs'
import { SETUP } from '../../scripts/lib/template.mjs'
import type { StaffMember } from '../../shared/schemas/account'
import type { ClientInput } from '../../shared/schemas/client'
import type { Problem } from '../../shared/schemas/problem'

export type Server = Awaited<ReturnType<typeof startServer>>

export { LEAD } from '../../scripts/lib/template.mjs'

/** What a route answered. `body` is whatever JSON it sent. */
export interface Answer<Body> {
  status: number
  body: Body
  text: string
}

/** A person at the API: keeps the session cookie between calls, as a browser does. */
export class Caller {
  private readonly cookies = new Map<string, string>()
  constructor(private readonly server: Pick<Server, 'address'>) {}

  /** What a browser at a page of our own sends along. */
  private headers(more: Record<string, string> = {}): Record<string, string> {
    const cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ')
    return { origin: this.server.address, cookie, ...more }
  }

  /** Goes on as another caller: the same browser, led to another process. */
  takeCookies(from: Caller): void {
    for (const [name, value] of from.cookies) this.cookies.set(name, value)
  }

  /** Those, for a request made by hand. */
  sentHeaders(): Record<string, string> {
    return this.headers()
  }

  private keepCookies(response: Response): void {
    for (const line of response.headers.getSetCookie()) {
      const [pair = ''] = line.split(';')
      const at = pair.indexOf('=')
      this.cookies.set(pair.slice(0, at), pair.slice(at + 1))
    }
  }

  async send<Body = Problem>(
    method: string,
    path: string,
    body?: unknown,
    raw?: string,
    more: Record<string, string> = {},
  ): Promise<Answer<Body>> {
    const response = await fetch(`${this.server.address}${path}`, {
      method,
      redirect: 'manual',
      headers: this.headers({ 'content-type': 'application/json', ...more }),
      ...(body === undefined && raw === undefined ? {} : { body: raw ?? JSON.stringify(body) }),
    })
    this.keepCookies(response)
    const text = await response.text()
    const isJson = response.headers.get('content-type')?.includes('json') ?? false
    return { status: response.status, body: (isJson && text ? JSON.parse(text) : null) as Body, text }
  }

  /** Sends bytes as they are. */
  async sendBytes<Body = Problem>(path: string, bytes: Buffer): Promise<Answer<Body>> {
    const response = await fetch(`${this.server.address}${path}`, {
      method: 'POST',
      headers: this.headers({ 'content-type': 'application/octet-stream' }),
      body: new Uint8Array(bytes),
    })
    const text = await response.text()
    return { status: response.status, body: JSON.parse(text) as Body, text }
  }

  /** Fetches something that is not JSON. */
  async bytes(path: string): Promise<{ status: number; headers: Headers; bytes: Buffer }> {
    const response = await fetch(`${this.server.address}${path}`, { headers: this.headers() })
    return { status: response.status, headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) }
  }

  /** A picture, where it says it is. */
  async picture(path: string): Promise<{ status: number; headers: Headers; bytes: Buffer }> {
    const { body } = await this.send<{ address?: string }>('GET', `${path}/address`)
    return this.bytes(body.address ?? path)
  }

  /** Opens an answer that goes on, such as a stream of events. */
  open(path: string): Promise<Response> {
    return fetch(`${this.server.address}${path}`, { headers: this.headers() })
  }

  async signIn({ email, password }: { email: string; password: string }): Promise<void> {
    const { status, text } = await this.send('POST', '/api/sign-in', { email, password })
    if (status !== 200) throw new Error(`sign-in: ${text}`)
  }

  /** Adds a person as a lead does, and chooses their password for them by the link. */
  async addPerson<Person extends { password?: string }>(person: Person): Promise<Answer<StaffMember & Problem>> {
    const { password, ...rest } = person
    const added = await this.send<StaffMember & Problem & { link: string }>('POST', '/api/staff', rest)
    if (added.status !== 201) return added
    const token = added.body.link.split('#')[1]
    const chosen = await new Caller(this.server).send('POST', '/api/password-reset', { token, password })
    if (chosen.status !== 200) throw new Error(`password of a new person: ${chosen.text}`)
    return added
  }

  /** Makes the studio of an empty installation and signs its lead coach in. */
  async setUp(change: Record<string, unknown> = {}): Promise<void> {
    const { status, text } = await this.send('POST', '/api/setup', {
      ...SETUP,
      ...change,
    })
    if (status !== 200) throw new Error(`setup: ${text}`)
  }
}

/** An invented client as the form would send them. */
export function someClient(change: Partial<ClientInput> = {}): ClientInput & { id: string } {
  const guardian = change.guardianConsent ? { guardianName: 'Hild Osk', guardianConsentOn: '2026-01-10' } : {}
  return {
    id: uuid(),
    name: 'Maren Osk',
    sex: 'female',
    birthDate: '1992-03-14',
    heightCm: 174,
    usualSide: 'right',
    notes: '',
    consentOn: '2026-01-10',
    guardianConsent: false,
    guardianName: '',
    guardianConsentOn: null,
    guardianPhotoConsentOn: null,
    preparation: null,
    ...guardian,
    flags: [],
    athlete: null,
    ancestry: null,
    photoConsentOn: null,
    ...change,
  }
}

/** A fold as a device would send it. */
export function someReading(change: Record<string, unknown> = {}) {
  return {
    id: uuid(),
    site: 'triceps',
    round: 1,
    value: 12.5,
    unit: 'mm',
    takenAt: new Date().toISOString(),
    source: 'keyboard',
    ...change,
  }
}

/** A client with a check-in under way. */
export async function startedCheckin(
  caller: Caller,
  client = someClient(),
  more: Record<string, unknown> = {},
): Promise<{ clientId: string; checkinId: string }> {
  await caller.send('POST', '/api/clients', client)
  const { body } = await caller.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
    id: uuid(),
    protocolId: 'laboratory-7',
    startedAt: new Date().toISOString(),
    ...more,
  })
  return { clientId: client.id, checkinId: body.id }
}
