import { startServer } from './lib/server-process.mjs'
import { launchChromium } from './lib/chromium.mjs'
const server = await startServer({ filled: 'demo' })
const browser = await launchChromium()
const page = await browser.newPage()
await page.setViewport({ width: 1280, height: 800 })
const go = async (p) => { await page.goto(server.address + p, { waitUntil: 'networkidle0' }); await new Promise(r => setTimeout(r, 700)) }
await go('/sign-in')
await page.type('[name="email"]', 'runa@reedwater.example'); await page.type('[name="password"]', 'reeds-and-oars')
await page.click('form button'); await new Promise(r => setTimeout(r, 2500))
export { server, browser, page, go }
