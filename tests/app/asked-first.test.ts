import { readFileSync } from 'node:fs'
import { createContext, runInContext } from 'node:vm'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { askedFirst, forgetAskedFirst, FRESH_MS } from '../../app/asked-first'
import { call } from '../../app/calls'
import { recordAt } from '../../app/composables/ahead'
import { noteLeaving } from '../../app/storage/leaving'
import { noteLocked } from '../../app/storage/lock-marks'

const PAGE = readFileSync(new URL('../../app/ask-first.js', import.meta.url), 'utf8')
const ID = '01a2204c-1fc8-76d6-afe4-d75a015c25e4'
const HISTORY = `/api/clients/${ID}/history`

type Asked = Record<string, Promise<object | undefined>>

/** What the page's own script asks for at an address, on a device whose storage holds these things. */
function pageAt(
  pathname: string,
  noted = new Map<string, string>(),
  answer = () => Promise.resolve(Response.json({})),
) {
  const asked: string[] = []
  const page = createContext({
    location: { pathname },
    localStorage: { getItem: (key: string) => noted.get(key) ?? null },
    fetch: (path: string) => (asked.push(path), answer()),
  })
  runInContext(PAGE, page)
  return { asked, answers: page.askedFirst as Asked | undefined }
}

afterEach(() => {
  forgetAskedFirst()
  vi.unstubAllGlobals()
})

describe('a page that asks before its code is there', () => {
  it('asks who is signed in and for the record, at the addresses of a record and at no other', () => {
    const views = ['', '/', '/diary', '/plan', '/check-in', '/check-ins', '/edit', '/measure', '/paper', '/from-home']
    const paths = ['/', '/clients', '/clients/new', `/measure/${ID}`, ...views.map((view) => `/clients/${ID}${view}`)]
    for (const path of paths) {
      // From home is a page of its own, which stands on the same facts.
      expect([path, pageAt(path).asked]).toEqual([path, recordAt(path) ? ['/api/me', HISTORY] : []])
    }
    expect(pageAt(`/clients/${ID}`).asked).toHaveLength(2)
  })

  it('asks for nothing while the device is locked or somebody is leaving', () => {
    const noted = new Map<string, string>()
    // The application's own notes, under whatever names it gives them.
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => noted.get(key) ?? null,
      setItem: (key: string, value: string) => noted.set(key, value),
      removeItem: (key: string) => noted.delete(key),
    })
    for (const note of [noteLocked, noteLeaving]) {
      note(true)
      expect(pageAt(`/clients/${ID}`, noted)).toEqual({ asked: [], answers: undefined })
      note(false)
      expect(pageAt(`/clients/${ID}`, noted).asked).toHaveLength(2)
    }
  })

  it('has nothing where the server refuses or cannot be reached', async () => {
    const refused = pageAt(`/clients/${ID}`, new Map(), () => Promise.resolve(Response.json({}, { status: 401 })))
    expect(await refused.answers?.[HISTORY]).toBeUndefined()
    const away = pageAt(`/clients/${ID}`, new Map(), () => Promise.reject(new Error('no network')))
    expect(await away.answers?.['/api/me']).toBeUndefined()
  })
})

describe('what the page has asked for', () => {
  const ask = vi.fn<() => Promise<object>>()
  const given = (answer?: object) => {
    globalThis.askedFirst = { [HISTORY]: Promise.resolve(answer) }
    ask.mockReset().mockResolvedValue({ asked: 'now' })
  }

  it('is taken once', async () => {
    given({ asked: 'first' })
    expect(await askedFirst(HISTORY, ask, 100)).toEqual({ asked: 'first' })
    expect(ask).not.toHaveBeenCalled()
    expect(await askedFirst(HISTORY, ask, 100)).toEqual({ asked: 'now' })
  })

  it('is asked for again where nothing came, where it is old, and for another path', async () => {
    given()
    expect(await askedFirst(HISTORY, ask, 100)).toEqual({ asked: 'now' })
    given({ asked: 'first' })
    expect(await askedFirst(HISTORY, ask, FRESH_MS + 1)).toEqual({ asked: 'now' })
    given({ asked: 'first' })
    expect(await askedFirst('/api/me', ask, 100)).toEqual({ asked: 'now' })
  })

  it('counts no more once something is changed, or somebody signs in', async () => {
    given({ asked: 'first' })
    vi.stubGlobal('$fetch', () => Promise.resolve({}))
    await call('GET', '/api/floor')
    expect(globalThis.askedFirst).toBeDefined()
    await call('POST', '/api/sign-in', {})
    expect(await askedFirst(HISTORY, ask, 100)).toEqual({ asked: 'now' })
  })
})
