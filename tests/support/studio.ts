import { expect } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { Caller, LEAD, type Server } from './api'
import { launchChromium, TABLET, Visitor, type Browser } from './browser'

/** A coach of the demo data. */
export const DEMO_COACH = { email: 'runa@reedwater.example', password: 'reeds-and-oars' }

/** A running application with a browser before it and a coach at both. */
export interface Studio {
  server: Server
  browser: Browser
  /** At the API. */
  api: Caller
  /** At a tablet. */
  coach: Visitor
  /** Nothing serious by axe, nothing wider than the screen. */
  audit: (where: string) => Promise<void>
  close: () => Promise<void>
}

/** Settings of such a studio. */
export interface StudioSettings {
  /** With the demo data and its coach; else a new studio with its lead coach. */
  demo?: boolean
  /** Further flags of Chromium. */
  flags?: string[]
  /** Left for the test to do: the first run. */
  empty?: boolean
  /** The tablet can go on without the server. */
  offline?: boolean
  /** Environment of the server. */
  env?: Record<string, string>
}

/** Starts the application and a browser, signed in at both unless nobody is there yet. */
export async function openStudio(settings: StudioSettings = {}): Promise<Studio> {
  const { demo = false, flags = [], empty = false, offline = false, env = {} } = settings
  const filled = demo ? 'demo' : empty ? 'empty' : 'studio'
  const [server, browser] = await Promise.all([startServer({ filled, env }), launchChromium(flags)])
  const api = new Caller(server)
  const coach = await Visitor.arrive(browser, server.address, TABLET, offline)
  if (!empty) {
    await Promise.all([api, coach].map((one) => one.signIn(demo ? DEMO_COACH : LEAD)))
  }
  return {
    server,
    browser,
    api,
    coach,
    async audit(where) {
      expect(await coach.seriousFindings(), where).toEqual([])
      expect(await coach.overflow(), where).toBeLessThanOrEqual(0)
    },
    async close() {
      await coach.close()
      await browser.close()
      await server.remove()
    },
  }
}
