/** npm run bench:span: the client page with 200 check-ins, drawn slowed four times, and the jaws dragged, in Chromium. */
import { bundled } from './lib/bundle.mjs'
import { launchChromium } from './lib/chromium.mjs'
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { startServer } from './lib/server-process.mjs'
import { spawnSync } from 'node:child_process'

const CHECKINS = 200
const RUNS = 9
/** Milliseconds between a finger going down and up. */
const PRESS = 80
/** Milliseconds until a page is at nothing any more, what it puts off for three seconds included: that would slow the next one. */
const RESTS_WITHIN = 5_000

ensureInstalled()
ensureBuilt()
const server = await startServer({
  prepare: async (dataDir) => {
    const seed = await bundled('cli/seed.ts')
    spawnSync(process.execPath, [seed, '--clients', '3', '--checkins', String(CHECKINS), '--data', dataDir], {
      stdio: 'inherit',
    })
  },
})
const browser = await launchChromium()
const page = await browser.newPage()
const client = await page.createCDPSession()

function say(name, values, target) {
  const sorted = [...values].sort((a, b) => a - b)
  const at = (share) => (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(1)
  console.log(`${name.padEnd(42)} p50 ${at(0.5)} ms, p95 ${at(0.95)} ms (target ${target})`)
}

/** As a coach comes to a client: pressed on the list, with the application open. The first, which fetches the code, does not count. */
async function fromTheClientsPage() {
  const taken = []
  for (let i = 0; i <= RUNS; i += 1) {
    await page.goto(`${server.address}/clients`, { waitUntil: 'networkidle0' })
    await page.waitForSelector('tbody a[href^="/clients/"]')
    await page.evaluate(() => {
      window.drawnAt = 0
      window.watchForTheChart()
      addEventListener('click', () => (window.clickedAt = performance.now()), { capture: true, once: true })
    })
    await page.click('tbody a[href^="/clients/"]', { delay: PRESS })
    await page.waitForFunction(() => window.drawnAt, { polling: 20, timeout: 60_000 })
    taken.push(await page.evaluate(() => window.drawnAt - window.clickedAt))
  }
  return taken.slice(1)
}

try {
  await page.goto(`${server.address}/sign-in`, { waitUntil: 'networkidle0' })
  await page.type('#email', 'runa@reedwater.example')
  await page.type('#password', 'reeds-and-oars')
  await page.keyboard.press('Enter')
  await page.waitForFunction(() => location.pathname === '/')
  const id = await page.evaluate(async () => (await (await fetch('/api/clients')).json()).clients[0].id)
  await page.goto(`${server.address}/clients`, { waitUntil: 'networkidle0' })
  // The page notes when its chart has been drawn: right after that frame, before what the page puts off until then.
  await page.evaluateOnNewDocument(() => {
    window.watchForTheChart = () =>
      new MutationObserver((_, observer) => {
        if (!document.querySelector('[role="img"] canvas')) return
        observer.disconnect()
        const note = () => (window.drawnAt = performance.now())
        requestAnimationFrame(() => void scheduler.postTask(note, { priority: 'user-blocking' }))
      }).observe(document, { childList: true, subtree: true })
    window.watchForTheChart()
  })
  await client.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const drawn = []
  for (let i = 0; i < RUNS; i += 1) {
    await page.goto(`${server.address}/clients/${id}`, { waitUntil: 'domcontentloaded' })
    await page.waitForFunction(() => window.drawnAt, { polling: 20, timeout: 60_000 })
    drawn.push(await page.evaluate(() => window.drawnAt))
    await new Promise((wake) => setTimeout(wake, RESTS_WITHIN))
  }
  say('from the clients page to the chart, slowed', await fromTheClientsPage(), '1000 ms')
  say('the same opened as a new page, slowed', drawn, '1000 ms')
  await client.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  await page.goto(`${server.address}/clients/${id}`, { waitUntil: 'networkidle2' })
  await new Promise((wake) => setTimeout(wake, 1500))
  const box = await page.$eval('[data-jaw="to"]', (element) => {
    const { x, y, width, height } = element.getBoundingClientRect()
    return { x: x + width / 2, y: y + height / 2 }
  })
  await page.evaluate(() => {
    window.frames60 = []
    window.handled = []
    let last = performance.now()
    const step = (now) => {
      window.frames60.push(now - last)
      last = now
      requestAnimationFrame(step)
    }
    requestAnimationFrame(step)
    addEventListener(
      'pointermove',
      () => {
        const start = performance.now()
        // After the handlers and the rendering that follows them at once.
        queueMicrotask(() => setTimeout(() => window.handled.push(performance.now() - start), 0))
      },
      { capture: true },
    )
  })
  await page.mouse.move(box.x, box.y)
  await page.mouse.down()
  for (let i = 0; i < 240; i += 1) {
    await page.mouse.move(box.x - 4 * (i < 120 ? i : 240 - i), box.y)
  }
  await page.mouse.up()
  const { frames, handled } = await page.evaluate(() => ({ frames: window.frames60.slice(1), handled: window.handled }))
  say('frame while dragging a jaw', frames, 'p95 20 ms')
  say('one move of a jaw, handled and rendered', handled, 'within a frame')
} finally {
  await browser.close()
  await server.remove()
}
