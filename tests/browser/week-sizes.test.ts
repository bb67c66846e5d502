import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ChallengeRecord } from '../../shared/schemas/challenge'
import type { ClientPage } from '../../shared/schemas/client'
import { openStudio, type Studio } from '../support/studio'

/** Sizes every page is tried at: a desk, tablets both ways, phones both ways, 200 % zoom. */
const SIZES = [
  [1280, 800],
  [1024, 768],
  [820, 1180],
  [390, 844],
  [844, 390],
  [640, 400],
] as const

let studio: Studio
let pages: string[] = []
beforeAll(async () => {
  studio = await openStudio({ demo: true })
  const { clients } = (await studio.api.send<ClientPage>('GET', '/api/clients?q=Maren')).body
  const [challenge] = (await studio.api.send<ChallengeRecord[]>('GET', '/api/challenges')).body
  const week = ['/', `/clients/${clients[0]?.id}/from-home`, '/challenges', `/challenges/${challenge?.id}`]
  pages = [...week, '/studio/sets', '/studio/people', '/studio/mail']
})
afterAll(() => studio.close())

describe('the pages of the week', () => {
  it('fit every size, turned from one to the next as a tablet is', async () => {
    const { page } = studio.coach
    for (const [i, path] of pages.entries()) {
      // Each is opened at another size first.
      const first = i % SIZES.length
      for (const [width, height] of [...SIZES.slice(first), ...SIZES.slice(0, first)]) {
        await page.setViewport({ width, height })
        if (page.url() !== `${studio.server.address}${path}`) await studio.coach.open(path)
        // Once it has been drawn at its new size.
        await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn, 50))))
        expect(await studio.coach.overflow(), `${path} at ${width} by ${height}`).toBeLessThanOrEqual(0)
      }
    }
  })

  it.each(SIZES.slice(0, 3))('have the next visit’s Measure on the screen at %i by %i', async (width, height) => {
    await studio.coach.page.setViewport({ width, height })
    await studio.coach.open('/')
    // In the evening nobody comes any more: then any visit is picked.
    if (!(await studio.coach.page.$('[data-visit-card]'))) await studio.coach.click('[data-visit]')
    await studio.coach.page.waitForSelector('[data-visit-card] .press-first')
    await studio.coach.page.waitForFunction(
      () =>
        (document.querySelector('[data-visit-card] .press-first')?.getBoundingClientRect().bottom ?? Infinity) <=
        innerHeight,
    )
  })
})
