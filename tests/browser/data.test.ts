import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClientPage } from '../../shared/schemas/client'
import type { Visitor } from '../support/browser'
import { PHONE, TABLET } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'

let studio: Studio
let coach: Visitor
const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-browser-data-'))
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
})
afterAll(async () => {
  await studio.close()
  rmSync(folder, { recursive: true })
})

const LOG = `Date,Name,Sex,DOB,Weight,Triceps mm,Subscap mm,Mood
3/4/2025,Hanne Alder,F,12/3/1989,68.4,14.5,11,good
17/4/2025,Hanne Alder,F,12/3/1989,68.1,14,11,so
3/4/2025,Joris Fen,M,1/2/1978,80,10,12,good
`
const names = async () =>
  (await studio.api.send<ClientPage>('GET', '/api/clients')).body.clients.map(({ name }) => name)

async function choose(name: string, content: string): Promise<void> {
  const path = join(folder, name)
  writeFileSync(path, content)
  const [chooser] = await Promise.all([coach.page.waitForFileChooser(), coach.click('button', 'Choose a file')])
  await chooser.accept([path])
  await coach.page.waitForSelector('[data-looked]')
}
/** What a column stands on, by its letter. */
const means = (place: number) => coach.page.$eval(`[data-column="${place}"]`, (head) => head.getAttribute('data-means'))

describe('a coach’s spreadsheet', () => {
  it('is met with its columns recognised, what is not known asked, every problem at its cell', async () => {
    await coach.click('nav a', 'Studio')
    await coach.click('nav a', 'Data')
    await coach.at('/studio/data')
    await studio.audit('data')
    await choose('log.csv', LOG.replace('14,11', '140,11'))
    expect(await means(1)).toBe('client')
    expect(await means(6)).toBe('subscapular')
    await coach.sees('Mood: say what it holds, or leave it out.')
    await coach.sees('Weight: in which unit are its numbers?')
    await studio.audit('a file to put right')
    // From the keyboard: the list of the column, its first entry, the unit beside.
    await coach.page.focus('[data-column="7"] button')
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-column="7"] [role="option"]')
    await coach.keys('Home', 'Enter')
    await coach.click('[data-column="4"] button', 'kg')
    await coach.page.waitForFunction(() =>
      document.querySelector('[data-problem]')?.textContent.includes('140 is outside'),
    )
    expect(await coach.page.$eval('[data-problem] span', (place) => place.textContent)).toBe('F3')
    expect(await coach.page.$eval('[data-store]', (button) => (button as HTMLButtonElement).disabled)).toBe(true)
    await coach.click('button', 'Leave it')
    expect(await names()).toEqual([])
  })

  it('comes in whole by one press, its clients new, and goes back by another', async () => {
    await choose('log.csv', LOG)
    await coach.click('[data-column="4"] button', 'kg')
    await coach.click('[data-column="7"] button')
    await coach.click('[data-column="7"] [data-option="left-out"]')
    await coach.page.waitForFunction(() => document.querySelectorAll('[data-who="new"]').length === 2)
    await coach.click('button', 'Bring in 3 check-ins')
    await coach.sees('log.csv: 3 check-ins are in.')
    expect(await names()).toEqual(['Hanne Alder', 'Joris Fen'])
    await studio.audit('what was brought in')
    await coach.click('[data-imports] button', 'Take back')
    await coach.click('[data-imports] button', 'Yes, take all of it back')
    await coach.sees('taken back')
    expect(await names()).toEqual([])
  })

  it('is known again: what was said of its columns once is not asked twice', async () => {
    await choose('log.csv', LOG)
    await coach.page.waitForFunction(() => document.querySelectorAll('[data-who="new"]').length === 2)
    expect(await coach.page.$('[data-problem]')).toBeNull()
    await coach.click('[data-store]')
    await coach.sees('log.csv: 3 check-ins are in.')
  })
})

describe('data that leaves and is kept', () => {
  it('is made, fetched, and backed up by hand', { timeout: 180_000 }, async () => {
    await coach.click('button', 'Make readings')
    await coach.page.waitForSelector('[data-made] a')
    const link = await coach.page.$eval('[data-made] a', (made) => [made.getAttribute('href'), made.textContent])
    const { bytes } = await studio.api.bytes(link[0] ?? '')
    expect(String(bytes).split('\r\n')[0]).toContain('client,sex,birth_date')
    await coach.click('button', 'Back up now')
    // A database of its own is filled in another process: longer than a page takes where the machine is busy.
    await coach.page.waitForFunction(() => document.body.innerText.includes('read back whole'), {
      timeout: 120_000,
      polling: 200,
    })
    await studio.audit('after a backup')
  })

  it('fits a phone and an upright tablet', async () => {
    for (const size of [PHONE, { width: 820, height: 1180 }, { width: 640, height: 400 }]) {
      await coach.page.setViewport(size)
      expect(await coach.overflow(), JSON.stringify(size)).toBeLessThanOrEqual(0)
    }
    await coach.page.setViewport(TABLET)
  })

  it('of one client is handed over, and erased by their name', async () => {
    await coach.click('nav a', 'Clients')
    await coach.click('a', 'Joris Fen')
    await coach.more('Edit details')
    await coach.click('[data-own-data] button', 'Make their own file')
    await coach.page.waitForSelector('[data-own-data] [data-made]')
    await studio.audit('own data')
    await coach.click('[data-own-data] button', 'Erase ...')
    await coach.page.type('[role="dialog"] input[name="name"]', 'Joris')
    await coach.click('[role="dialog"] button', 'Erase for good')
    await coach.sees('This is not the name on record: nothing was erased.')
    await coach.page.type('[role="dialog"] input[name="name"]', ' Fen')
    await coach.click('[role="dialog"] button', 'Erase for good')
    await coach.sees('Backups made before still hold them.')
    await studio.audit('erased')
    await coach.click('[role="dialog"] button', 'To the clients')
    await coach.at('/clients')
    expect(await names()).toEqual(['Hanne Alder'])
  })
})
