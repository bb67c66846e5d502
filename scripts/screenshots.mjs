/** npm run screenshots: docs/screenshots/*.png, 1280x800 (phone views 390x844), from fresh demo data. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { ensureChromium, launchChromium } from './lib/chromium.mjs'
import { ensureBuilt, ensureInstalled, ROOT } from './lib/prepare.mjs'
import { startServer } from './lib/server-process.mjs'

const TABLET = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true }

/** Views by file name; each gets a page that is signed in and leaves it showing what is to be seen. */
const VIEWS = {
  floor: { open: '/' },
  clients: { open: '/clients' },
  client: { open: '/clients', press: ['td a', 'Maren Osk'] },
  'client-phone': { open: '/clients', press: ['td a', 'Maren Osk'], viewport: PHONE },
  result: { open: '/clients', press: ['td a', 'Tobin Hale'], click: ['Check-in'] },
  diary: { open: '/clients', press: ['td a', 'Maren Osk'], click: ['Weight diary'] },
  plan: { open: '/clients', press: ['td a', 'Maren Osk'], click: ['Plan start to now', 'Plan'] },
  photographs: { open: '/clients', press: ['td a', 'Maren Osk'], click: ['Twelve weeks', 'Photographs'] },
  error: { open: '/clients', press: ['td a', 'Tobin Hale'], click: ['Error'] },
  measuring: { open: '/', press: ['a', 'Go on measuring'], type: '13.5' },
  'measuring-phone': { open: '/', press: ['a', 'Go on measuring'], viewport: PHONE },
  prepare: { open: '/clients', press: ['td a', 'Maren Osk'], then: ['a', 'Measure'] },
  'client-form': { open: '/clients/new' },
  sites: { open: '/reference/sites?site=suprailiac' },
  equations: { open: '/reference/equations?equation=jackson-pollock-7-women' },
  'pocket-charts': { open: '/reference/charts' },
  norms: { open: '/reference/norms' },
  studio: { open: '/studio' },
  record: { open: '/studio/record' },
}

async function press(page, [selector, words]) {
  const found = await page.waitForFunction(
    (css, text) => [...document.querySelectorAll(css)].find((element) => element.textContent.trim().startsWith(text)),
    {},
    selector,
    words,
  )
  await found.click()
}

async function signIn(page, address) {
  await page.goto(`${address}/sign-in`, { waitUntil: 'networkidle0' })
  await page.type('#email', 'runa@reedwater.example')
  await page.type('#password', 'reeds-and-oars')
  await page.keyboard.press('Enter')
  await page.waitForFunction(() => location.pathname === '/')
}

ensureInstalled()
ensureBuilt()
ensureChromium()
const folder = join(ROOT, 'docs/screenshots')
mkdirSync(folder, { recursive: true })
const wanted = process.argv.slice(2)
const server = await startServer({ demo: true })
const browser = await launchChromium()
const page = await browser.newPage()

async function take(name, view) {
  // Switching to a phone reloads the page: do it where there is nothing to reload.
  await page.goto('about:blank')
  await page.setViewport(view.viewport ?? TABLET)
  await page.goto(server.address + view.open, { waitUntil: 'networkidle0' })
  if (view.press) await press(page, view.press)
  if (view.then) {
    // The next page is there once its heading is.
    await page.waitForFunction((name) => document.querySelector('h1')?.textContent.startsWith(name), {}, view.press[1])
    await press(page, view.then)
  }
  for (const words of view.click ?? []) await press(page, ['button, nav a', words])
  await page.evaluate(() => document.activeElement instanceof HTMLElement && document.activeElement.blur())
  await new Promise((done) => setTimeout(done, 1200))
  if (view.type) await page.keyboard.type(view.type)
  await new Promise((done) => setTimeout(done, 200))
  const file = join(folder, `${name}.png`)
  // A palette keeps the repository small; the product has few colours.
  writeFileSync(
    file,
    await sharp(await page.screenshot())
      .png({ palette: true, compressionLevel: 9 })
      .toBuffer(),
  )
  console.log(`docs/screenshots/${name}.png`)
}

try {
  await signIn(page, server.address)
  for (const [name, view] of Object.entries(VIEWS)) {
    if (wanted.length === 0 || wanted.includes(name)) await take(name, view)
  }
} finally {
  await browser.close()
  await server.remove()
}
