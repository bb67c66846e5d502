/** npm run bench:board: the floor's week with 60 and with 300 visits, from the press to the picture, in Chromium. */
import { randomUUID } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { bundled } from './lib/bundle.mjs'
import { launchChromium } from './lib/chromium.mjs'
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { startServer } from './lib/server-process.mjs'

const RUNS = 15
const CLIENTS = 60
const DAY_MS = 86_400_000

ensureInstalled()
ensureBuilt()
const server = await startServer({
  prepare: async (dataDir) => {
    const seed = await bundled('cli/seed.ts')
    spawnSync(process.execPath, [seed, '--clients', String(CLIENTS), '--checkins', '3', '--data', dataDir], {
      stdio: 'inherit',
    })
  },
})
const browser = await launchChromium()
const page = await browser.newPage()
await page.setViewport({ width: 1280, height: 800 })

/** Visits spread over a week that begins `weeks` from now: two at a time, from seven in the morning on. */
async function book(weeks, count) {
  const monday = new Date(Date.now() + 7 * weeks * DAY_MS)
  monday.setUTCDate(monday.getUTCDate() - ((monday.getUTCDay() + 6) % 7))
  const visits = Array.from({ length: count }, (_, i) => {
    const day = i % 6
    const slot = Math.floor(i / 6)
    const at = new Date(monday)
    at.setUTCDate(at.getUTCDate() + day)
    at.setUTCHours(7, Math.floor(slot / 2) * (count > 100 ? 30 : 45), 0, 0)
    return { place: i, bench: slot % 2 === 0 ? 'Bench' : 'Back room', startsAt: at.toISOString() }
  })
  await page.evaluate(
    async (all, ids) => {
      const { clients } = await (await fetch('/api/clients')).json()
      for (const [i, one] of all.entries()) {
        const body = {
          clientId: clients[one.place % clients.length].id,
          assessorId: null,
          minutes: 30,
          place: one.bench,
          visits: [{ id: ids[i], startsAt: one.startsAt }],
        }
        const init = { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
        const answer = await fetch('/api/bookings', init)
        if (answer.status !== 201) throw new Error(await answer.text())
      }
    },
    visits,
    visits.map(() => randomUUID()),
  )
}

/** From the press on "The week after" until that week's slips are painted, ms; and how much of it was the answer. */
async function shown(count) {
  const taken = []
  for (let i = 0; i <= RUNS; i += 1) {
    await page.goto(`${server.address}/`, { waitUntil: 'networkidle0' })
    if (count > 100) {
      await page.click('button[aria-label="The week after"]')
      await page.waitForFunction(() => document.querySelectorAll('[data-visit]').length > 0)
    }
    taken.push(
      await page.evaluate(
        (wanted) =>
          new Promise((done) => {
            const begun = performance.now()
            let answered = 0
            const asked = globalThis.fetch
            globalThis.fetch = async (...all) => {
              const answer = await asked(...all)
              answered = performance.now()
              return answer
            }
            const observer = new MutationObserver(() => {
              if (document.querySelectorAll('[data-visit]').length !== wanted) return
              observer.disconnect()
              requestAnimationFrame(() =>
                setTimeout(() => {
                  globalThis.fetch = asked
                  done({ whole: performance.now() - begun, drawing: performance.now() - answered })
                }, 0),
              )
            })
            observer.observe(document.body, { childList: true, subtree: true })
            document.querySelector('button[aria-label="The week after"]').click()
          }),
        count,
      ),
    )
  }
  return taken.slice(1)
}

function say(name, values, target) {
  const sorted = [...values].sort((a, b) => a - b)
  const at = (share) => (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(1)
  console.log(`${name.padEnd(46)} p50 ${at(0.5)} ms, p95 ${at(0.95)} ms (${target})`)
}

try {
  await page.goto(`${server.address}/sign-in`, { waitUntil: 'networkidle0' })
  await page.type('#email', 'runa@reedwater.example')
  await page.type('#password', 'reeds-and-oars')
  await page.keyboard.press('Enter')
  await page.waitForFunction(() => location.pathname === '/')
  await book(1, 60)
  await book(2, 300)
  for (const count of [60, 300]) {
    const taken = await shown(count)
    say(
      `a week of ${count} visits, answer to picture`,
      taken.map(({ drawing }) => drawing),
      'target 100 ms',
    )
    say(
      `a week of ${count} visits, press to picture`,
      taken.map(({ whole }) => whole),
      'with the answer',
    )
    if (process.env.PICTURES) await page.screenshot({ path: `${process.env.PICTURES}/board-${count}.png` })
  }
} finally {
  await browser.close()
  await server.remove()
}
