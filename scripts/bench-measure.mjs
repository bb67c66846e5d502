/** npm run bench:measure: presses, key to paint, script size and start of the measuring screen, in Chromium. */
import { gzipSync } from 'node:zlib'
import { launchChromium } from './lib/chromium.mjs'
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { startServer } from './lib/server-process.mjs'

const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

ensureInstalled()
ensureBuilt()
const server = await startServer({ filled: 'demo' })
const browser = await launchChromium()
const page = await browser.newPage()
const client = await page.createCDPSession()
let presses = 0
const key = async (name) => {
  presses += 1
  await page.keyboard.press(name)
}
const type = async (value) => {
  for (const sign of String(value)) await key(sign)
}

async function press(words) {
  presses += 1
  const found = await page.waitForFunction(
    (text) =>
      [...document.querySelectorAll('a, button')].find((one) => one.textContent.trim() === text && !one.disabled),
    { polling: 20 },
    words,
  )
  await found.click()
}

/** What the page itself has spent since it was opened, ms: scripts, style and layout, without drawing and waiting for frames. */
async function spent() {
  const { metrics } = await client.send('Performance.getMetrics')
  const of = (name) => metrics.find((metric) => metric.name === name)?.value ?? 0
  return 1000 * (of('ScriptDuration') + of('RecalcStyleDuration') + of('LayoutDuration'))
}

function at(values, share) {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(share * (sorted.length - 1))] ?? NaN
}

function percentiles(values) {
  return `p50 ${at(values, 0.5).toFixed(1)} ms, p95 ${at(values, 0.95).toFixed(1)} ms`
}

/** Times of digits, and of Enter, which keeps a reading and goes on to the next site. */
function apart(times) {
  const of = (enter) => times.filter((one) => (one.key === 'Enter') === enter).map(({ ms }) => ms)
  return { digits: of(false), enters: of(true) }
}

/** Prints our times beside the floor's: the same key on an empty page. */
function say(name, times, floor, most) {
  const { digits, enters } = apart(times)
  const ratio = (values) => (at(values, 0.95) / at(floor, 0.95)).toFixed(2)
  console.log(`${name}: floor, an empty page   ${percentiles(floor)}`)
  console.log(`${name}: digits                 ${percentiles(digits)}, ${ratio(digits)} of the floor (target ${most})`)
  console.log(`${name}: Enter                  ${percentiles(enters)}, ${ratio(enters)} of the floor`)
}

/** What a key costs at least here: an empty page that paints a typed digit. */
async function floorOf(rate) {
  const empty = await browser.newPage()
  await empty.setContent('<output style="font-size:72px">0</output>')
  const session = await empty.createCDPSession()
  await session.send('Emulation.setCPUThrottlingRate', { rate })
  await empty.evaluate(() => {
    window.keyTimes = []
    const field = document.querySelector('output')
    addEventListener('keydown', ({ key, timeStamp }) => {
      field.textContent = key
      requestAnimationFrame(() => setTimeout(() => window.keyTimes.push(performance.now() - timeStamp), 0))
    })
  })
  await empty.bringToFront()
  const WARMING = 20
  for (let i = 0; i < WARMING + 60; i += 1) await empty.keyboard.press(String(i % 10))
  await new Promise((wake) => setTimeout(wake, 500))
  const times = (await empty.evaluate(() => window.keyTimes)).slice(WARMING)
  await empty.close()
  await page.bringToFront()
  return times
}

/** From each key event to the frame painted after it, as the page itself measures. */
async function watchKeys() {
  await page.evaluate(() => {
    window.keyTimes = []
    window.shifts = 0
    addEventListener(
      'keydown',
      ({ key, timeStamp }) =>
        requestAnimationFrame(() =>
          setTimeout(() => window.keyTimes.push({ key, ms: performance.now() - timeStamp }), 0),
        ),
      { capture: true },
    )
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (!entry.hadRecentInput) window.shifts += entry.value
    }).observe({ type: 'layout-shift', buffered: false })
  })
}

async function untilNext(count) {
  await page.waitForFunction((wanted) => document.querySelectorAll('.kept').length >= wanted, { polling: 10 }, count)
}

try {
  await page.goto(`${server.address}/sign-in`, { waitUntil: 'networkidle0' })
  await page.type('#email', 'runa@reedwater.example')
  await page.type('#password', 'reeds-and-oars')
  await page.keyboard.press('Enter')
  await page.waitForFunction(() => location.pathname === '/')
  await page.goto(`${server.address}/clients`, { waitUntil: 'networkidle0' })
  await press('Maren Osk')
  await page.waitForFunction(() => document.body.innerText.includes('Site by site'))

  presses = 0
  await press('Measure')
  await press('Start')
  await press('Skip marking')
  await page.waitForSelector('section[aria-label="Entry"] h2')
  await watchKeys()
  await client.send('Performance.enable')
  const before = await spent()
  await type('71.4')
  await key('Enter')
  let kept = 0
  const digits = 2 * FOLDS.join('').length + 4
  for (const value of [...FOLDS, ...FOLDS]) {
    await type(value)
    await key('Enter')
    kept += 1
    await untilNext(kept)
  }
  await page.waitForSelector('[data-percent]')
  const own = (await spent()) - before
  await press('Done')
  const commits = 15
  console.log(
    `presses, client page to done   ${presses}: ${digits} digits, ${commits} commits, ${presses - digits - commits} others (target 8)`,
  )
  const plain = await page.evaluate(() => ({ times: window.keyTimes, shifts: window.shifts }))
  say('unslowed', plain.times, await floorOf(1), 1.5)
  console.log(`of it scripts, style, layout   mean ${(own / plain.times.length).toFixed(1)} ms a key`)
  console.log(`layout shift while measuring   ${plain.shifts.toFixed(4)} (target 0)`)

  await page.waitForFunction(() => document.body.innerText.includes('Site by site'))
  await client.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  await press('Measure')
  await press('Start')
  await press('Skip marking')
  await page.waitForSelector('section[aria-label="Entry"] h2')
  await watchKeys()
  await type('71.4')
  await key('Enter')
  for (const [i, value] of FOLDS.entries()) {
    await type(value)
    await key('Enter')
    await untilNext(i + 1)
  }
  const slow = await page.evaluate(() => window.keyTimes)
  say('slowed four times', slow, await floorOf(4), 2)

  const address = page.url()
  const scripts = new Map()
  page.on('response', async (response) => {
    if (response.request().resourceType() !== 'script') return
    scripts.set(response.url(), gzipSync(await response.buffer().catch(() => Buffer.alloc(0))).length)
  })
  await page.evaluate(async () => {
    for (const one of await navigator.serviceWorker.getRegistrations()) await one.unregister()
    for (const name of await caches.keys()) await caches.delete(name)
  })
  await page.setCacheEnabled(false)
  // The page itself notes when it first asks for a reading.
  await page.evaluateOnNewDocument(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('section[aria-label="Entry"] h2')) return
      window.usableAt = performance.now()
      observer.disconnect()
    }).observe(document, { childList: true, subtree: true })
  })
  await page.goto(address, { waitUntil: 'domcontentloaded' })
  await page.waitForFunction(() => window.usableAt, { polling: 20 })
  console.log(
    `navigation to usable, slowed   ${(await page.evaluate(() => window.usableAt)).toFixed(0)} ms (target 1500)`,
  )
  // Once more for what has run by then: files fetched ahead for later do not count.
  await client.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  await page.coverage.startJSCoverage()
  await page.goto(address, { waitUntil: 'domcontentloaded' })
  await page.waitForFunction(() => window.usableAt, { polling: 10 })
  const ran = await page.coverage.stopJSCoverage()
  await new Promise((wake) => setTimeout(wake, 1500))
  const sizes = ran.flatMap(({ url }) => scripts.get(url) ?? [])
  console.log(
    `script before it works         ${(sizes.reduce((a, b) => a + b, 0) / 1024).toFixed(0)} kB gzip in ${sizes.length} files (target 170)`,
  )
} finally {
  await browser.close()
  await server.remove()
}
