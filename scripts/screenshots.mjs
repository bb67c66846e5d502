/** npm run screenshots: docs/screenshots/*.png, 1280x800 (phone views 390x844), from fresh demo data. */
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
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
  result: { open: '/clients', press: ['td a', 'Tobin Hale'], click: ['Check-in'] },
  plan: { open: '/clients', press: ['td a', 'Maren Osk'], click: ['From the plan’s start', 'Plan'] },
  error: { open: '/clients', press: ['td a', 'Tobin Hale'], click: ['How sure'] },
  measuring: { open: '/', press: ['a', 'Go on measuring'], type: '13.5' },
  'measuring-phone': { open: '/', press: ['a', 'Go on measuring'], viewport: PHONE },
  sites: { open: '/reference/sites?site=suprailiac' },
  energy: { open: '/clients', press: ['td a', 'Maren Osk'], click: ['Energy'] },
  'is-it-real': { open: '/reference/is-it-real', click: ['Measure them'], wait: '[data-kind]' },
  'from-home': { open: '/clients', press: ['td a', 'Maren Osk'], then: ['a', 'Client’s link'] },
  marking: {
    open: '/clients',
    press: ['td a', 'Petra'],
    then: ['a', 'Measure'],
    click: ['Start'],
    wait: '[data-close-up]',
  },
  bench: { open: '/bench', wait: '[data-progress-sites]' },
  study: { open: '/bench/studies', press: ['a', 'September'], wait: '[data-sides]' },
  drill: { open: '/bench/drills/read-dial', click: ['Pinch'], wait: 'input[name="said"]' },
  'bring-in': { open: '/studio/data', file: 'paper-log.csv', wait: '[data-looked]' },
}

/** The client's own phone, and the board of a challenge: behind secret addresses that are made here. */
async function takeSecret() {
  await page.goto('about:blank')
  await page.setViewport(TABLET)
  await page.goto(`${server.address}/clients`, { waitUntil: 'networkidle0' })
  const [link, board] = await page.evaluate(async () => {
    const post = async (path, body) =>
      (
        await fetch(path, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).json()
    const { clients } = await (await fetch('/api/clients?q=Maren')).json()
    const scope = ['weigh-ins', 'girths', 'photographs', 'take-home']
    const made = await post(`/api/clients/${clients[0].id}/links`, { scope, days: 60 })
    const [challenge] = await (await fetch('/api/challenges')).json()
    return [made.link, (await post(`/api/challenges/${challenge.id}/board`, {})).link]
  })
  const context = await browser.createBrowserContext()
  const own = await context.newPage()
  await own.setViewport(PHONE)
  await own.goto(link, { waitUntil: 'networkidle0' })
  await own.type('[name="pin"]', '4719')
  await own.type('[name="again"]', '4719')
  await press(own, ['button', 'Keep this PIN'])
  await own.waitForSelector('[data-morning]')
  await own.click('button[aria-label="Dim"]')
  await press(own, ['button', 'Hand in'])
  await own.reload({ waitUntil: 'networkidle0' })
  await keep('hand-in-phone', own)
  await own.setViewport({ width: 1280, height: 720 })
  await own.goto('about:blank')
  await own.evaluate(() => 0)
  await own.goto(board, { waitUntil: 'networkidle0' })
  await own.evaluate(() => (document.documentElement.dataset.theme = 'light'))
  await own.waitForSelector('[data-row]')
  await keep('board', own)
  await context.close()
}

/** A paper log as somebody would have typed it, in a file of its own. */
function paperLog(name) {
  const file = join(mkdtempSync(join(tmpdir(), 'oak-pinch-log-')), name)
  writeFileSync(
    file,
    `Date,Name,Sex,DOB,Weight kg,Triceps 1,Triceps 2,Chest,Abdomen,Thigh,BF%
3/4/2025,Hanne Alder,F,12/3/1989,68.4,14.5,15,11,20,24,18
17/4/2025,Hanne Alder,F,12/3/1989,68.1,14,14.5,11,19,24,17.5
3/4/2025,Joris Fen,M,1/2/1978,82,10,10.5,14,22,16,15
17/4/2025,Joris Fen,M,1/2/1978,81.5,10,10,13.5,212,16,15
3/4/2025,Maren Osk,,,71.2,16,16.5,10,18,26,20
`,
  )
  return file
}

async function keep(name, from) {
  await new Promise((done) => setTimeout(done, 800))
  const file = join(folder, `${name}.png`)
  // A palette keeps the repository small; the product has few colours.
  writeFileSync(
    file,
    await sharp(await from.screenshot())
      .png({ palette: true, compressionLevel: 9 })
      .toBuffer(),
  )
  console.log(`docs/screenshots/${name}.png`)
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
const server = await startServer({ filled: 'demo' })
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
  if (view.file) {
    const [chooser] = await Promise.all([page.waitForFileChooser(), press(page, ['button', 'Choose a file'])])
    await chooser.accept([paperLog(view.file)])
  }
  if (view.wait) await page.waitForSelector(view.wait)
  await page.evaluate(() => document.activeElement instanceof HTMLElement && document.activeElement.blur())
  await new Promise((done) => setTimeout(done, 1200))
  if (view.type) await page.keyboard.type(view.type)
  await keep(name, page)
}

try {
  await signIn(page, server.address)
  for (const [name, view] of Object.entries(VIEWS)) {
    if (wanted.length === 0 || wanted.includes(name)) await take(name, view)
  }
  if (wanted.length === 0 || wanted.includes('hand-in-phone') || wanted.includes('board')) await takeSecret()
} finally {
  await browser.close()
  await server.remove()
}
