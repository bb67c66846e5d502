import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

// The shell without a window does the same work on a page with a quarter less computation.
const PLACES = [
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/usr/bin/google-chrome-stable',
]

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-renderer-backgrounding',
  '--disable-backgrounding-occluded-windows',
  '--disable-background-timer-throttling',
  '--font-render-hinting=none',
]

/** Path of a Chromium on this machine: CHROME_PATH, or one of the usual places. Null when there is none. */
export function findChromium() {
  if (process.env.CHROME_PATH) return existsSync(process.env.CHROME_PATH) ? process.env.CHROME_PATH : null
  return PLACES.find((path) => existsSync(path)) ?? null
}

function installOnDebian() {
  const asRoot = process.getuid?.() === 0
  if (!asRoot || !existsSync('/etc/debian_version')) return
  console.log('Installing Chromium from Debian’s packages ...')
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env })
  spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env,
  })
}

/** Finds Chromium, installing it as root on Debian. Throws one clear sentence when there is none. */
export function ensureChromium() {
  if (!findChromium()) installOnDebian()
  const path = findChromium()
  if (path) return path
  throw new Error('The browser tests need Chromium: install it, or name its program in CHROME_PATH.')
}

/**
 * Starts a headless Chromium with a new profile of its own, which goes when it is closed.
 * @param {string[]} more further flags, such as those of a stand-in camera
 * @returns {Promise<import('puppeteer-core').Browser>}
 */
export async function launchChromium(more = []) {
  const { default: puppeteer } = await import('puppeteer-core')
  return puppeteer.launch({
    executablePath: ensureChromium(),
    headless: true,
    args: [...FLAGS, ...more],
    defaultViewport: { width: 1280, height: 800 },
  })
}
