import type { CDPSession } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Me } from '../../shared/schemas/account'
import { LEAD } from '../support/api'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

let studio: Studio
let devtools: CDPSession
let authenticatorId = ''

/** A device that holds passkeys, as the browser's own tools stand in for one (WebAuthn domain of the DevTools protocol). */
async function plugIn(isUserVerified = true): Promise<string> {
  const added = await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified,
      automaticPresenceSimulation: true,
    },
  })
  return added.authenticatorId
}

beforeAll(async () => {
  // Browsers take a passkey for a name, not for a number; a proof holds for six seconds.
  studio = await openStudio({ empty: true, env: { CONFIRM_AFTER_MINUTES: String(6 / 60) } })
  const { coach, server, api } = studio
  await api.setUp()
  devtools = await coach.page.createCDPSession()
  await devtools.send('WebAuthn.enable')
  authenticatorId = await plugIn()
  await coach.page.goto(server.address.replace('127.0.0.1', 'localhost') + '/sign-in')
  await coach.page.waitForSelector('#email')
  await coach.page.type('#email', LEAD.email)
  await coach.page.type('#password', LEAD.password)
  await coach.keys('Enter')
  await coach.at('/')
})
afterAll(() => studio.close())

const go = (path: string) => studio.coach.page.goto(`${studio.server.address.replace('127.0.0.1', 'localhost')}${path}`)

/** Presses for a passkey and waits for what comes of it; on a slow machine the last proof may have gone stale. */
async function make(words: string): Promise<void> {
  const { coach } = studio
  await coach.click('[data-passkeys] button', 'Make one on this device')
  await until(
    async () => {
      if (await coach.page.$('[data-confirm] [name="password"]')) {
        await coach.page.type('[data-confirm] [name="password"]', LEAD.password)
        await coach.keys('Enter')
        await coach.page.waitForSelector('[data-confirm]', { hidden: true })
      }
      // Told whole where it never comes.
      return coach.page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('[data-passkeys], [data-confirm]')]
          .map(({ innerText }) => innerText)
          .join('\n'),
      )
    },
    (said) => said.includes(words),
  )
}

describe('a passkey', () => {
  it('is made on the device after a fresh proof, and stands in the list', async () => {
    const { coach } = studio
    await coach.page.evaluateOnNewDocument(() => {
      new MutationObserver(() => {
        const said = document.querySelector<HTMLElement>('[data-passkeys]')?.innerText ?? ''
        if (said.includes('begins with https')) Object.assign(globalThis, { saidNo: true })
      }).observe(document, { childList: true, subtree: true })
    })
    await go('/studio/account')
    await coach.page.waitForSelector('[data-passkeys] button')
    // Nor while the list was on its way.
    expect(await coach.page.evaluate(() => 'saidNo' in globalThis)).toBe(false)
    await studio.audit('account with passkeys')
    await make('not used yet')
    const { credentials } = await devtools.send('WebAuthn.getCredentials', { authenticatorId })
    expect(credentials).toHaveLength(1)
    expect(credentials[0]).toMatchObject({ rpId: 'localhost', isResidentCredential: true })
    // The same device makes no second one.
    await make('this device holds one for this account already')
  })

  it('confirms who it is where something is guarded', async () => {
    const { coach } = studio
    await new Promise((done) => setTimeout(done, 6_200))
    await go('/studio/people')
    await coach.click('button', 'Invite by link')
    await coach.page.type('[name="name"]', 'Ivo Tarn')
    await coach.page.type('[name="email"]', 'ivo@reedwater.example')
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-confirm]')
    await coach.click('[data-confirm] button', 'By passkey')
    await coach.page.waitForSelector('[data-link]')
  })

  it('signs in without a name or a password', async () => {
    const { coach } = studio
    await coach.click('[data-account]')
    await coach.click('button', 'Sign out')
    await coach.at('/sign-in')
    await coach.click('button', 'Sign in with a passkey')
    await coach.at('/')
    const me = await coach.page.evaluate(async () => (await (await fetch('/api/me')).json()) as Me)
    expect(me.staff.name).toBe('Runa Bexley')
    await go('/studio/account')
    await coach.sees('last used today')
    expect(coach.faults).toEqual([])
  })

  it('that its person did not open by finger, face or digits is not taken, nor one nobody here has', async () => {
    const { coach } = studio
    const { credentials } = await devtools.send('WebAuthn.getCredentials', { authenticatorId })
    await coach.click('[data-account]')
    await coach.click('button', 'Sign out')
    await coach.at('/sign-in')
    await devtools.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false })
    await coach.click('button', 'Sign in with a passkey')
    await coach.sees('No passkey was given.')
    await devtools.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true })
    // The same name on the same device, but another key.
    const [own] = credentials
    await devtools.send('WebAuthn.clearCredentials', { authenticatorId })
    const key = await coach.page.evaluate(async () => {
      const made = await crypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, ['sign'])
      const bytes = new Uint8Array(await crypto.subtle.exportKey('pkcs8', made.privateKey))
      return btoa(String.fromCharCode(...bytes))
    })
    await devtools.send('WebAuthn.addCredential', {
      authenticatorId,
      credential: { ...own, privateKey: key } as Required<typeof own> & object,
    } as never)
    await coach.click('button', 'Sign in with a passkey')
    await coach.sees('This passkey was not taken.')
    expect(await coach.page.evaluate(async () => (await fetch('/api/me')).status)).toBe(401)
  })

  it('answers one question once: what was sent before is not taken again', async () => {
    const { coach, api } = studio
    await devtools.send('WebAuthn.removeVirtualAuthenticator', { authenticatorId })
    authenticatorId = await plugIn()
    await go('/sign-in')
    await coach.page.waitForSelector('#email')
    await coach.page.type('#email', LEAD.email)
    await coach.page.type('#password', LEAD.password)
    await coach.keys('Enter')
    await coach.at('/')
    await go('/studio/account')
    await make('not used yet')
    expect((await api.send<unknown[]>('GET', '/api/me/passkeys')).body).toHaveLength(2)
    await coach.click('[data-account]')
    await coach.click('button', 'Sign out')
    await coach.at('/sign-in')
    const sent: string[] = []
    coach.page.on('request', (request) => {
      if (request.url().endsWith('/api/sign-in/passkey')) sent.push(request.postData() ?? '')
    })
    await coach.click('button', 'Sign in with a passkey')
    await coach.at('/')
    expect(sent).toHaveLength(1)
    const again = await coach.page.evaluate(async (body: string) => {
      const headers = { 'content-type': 'application/json' }
      return (await fetch('/api/sign-in/passkey', { method: 'POST', body, headers })).status
    }, sent[0] ?? '')
    expect(again).toBe(422)
  })
})
