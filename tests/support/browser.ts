import { createRequire } from 'node:module'
import type { Browser, ElementHandle, KeyInput, Page } from 'puppeteer-core'
import { launchChromium } from '../../scripts/lib/chromium.mjs'

const AXE = createRequire(import.meta.url).resolve('axe-core/axe.min.js')

/** How pages are waited on: by clock, because a page behind another one gets no frames. */
const POLLING = { polling: 40 }

export const TABLET = { width: 1280, height: 800 }
/** The views of a client's record. */
export const VIEW = 'nav[aria-label="Views of the record"] a'

export const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true, deviceScaleFactor: 2 }

/** What the page's application tells of its router. */
interface VueApp {
  config: {
    globalProperties: {
      $router: { currentRoute: { value: { fullPath: string } }; push: (to: string) => Promise<unknown> }
    }
  }
}

/** A person at a browser, in a profile of their own. Pages that fail in script make the test fail. */
export class Visitor {
  readonly faults: string[] = []
  private constructor(
    readonly page: Page,
    private readonly address: string,
    private readonly offline: boolean,
  ) {
    page.on('pageerror', (error) => this.faults.push(String(error)))
    page.setDefaultTimeout(30_000)
  }

  /**
   * @param offline with the application's own store on the device: filling it takes a sixth of a visit's computation, so
   * that it is there only for tests that go on without the server
   */
  static async arrive(
    browser: Browser,
    address: string,
    viewport: Parameters<Page['setViewport']>[0] = TABLET,
    offline = false,
  ): Promise<Visitor> {
    const context = await browser.createBrowserContext()
    const page = await context.newPage()
    await page.setViewport(viewport)
    if (!offline) await page.evaluateOnNewDocument(() => Reflect.deleteProperty(Navigator.prototype, 'serviceWorker'))
    return new Visitor(page, address, offline)
  }

  /**
   * Goes there: as a press on a link does where the application is open, which takes a third of the work; else by its
   * address. So does who goes on without the server: what a page needs then is kept when it is loaded.
   */
  async open(path: string): Promise<void> {
    if (this.offline || !(await this.turn(path))) return this.load(path)
    // A page with an open stream never rests.
    await this.page.waitForNetworkIdle({ idleTime: 100, timeout: 3_000 }).catch(() => undefined)
  }

  /** By its address, everything read anew. */
  async load(path: string): Promise<void> {
    await this.page.goto(`${this.address}${path}`, { waitUntil: 'networkidle0' })
  }

  /** Within the application. False where it is not open, or is there already. */
  turn(path: string): Promise<boolean> {
    return this.page.evaluate(async (to) => {
      const root = document.querySelector<HTMLElement & { __vue_app__?: VueApp }>('#__nuxt')
      const router = root?.__vue_app__?.config.globalProperties.$router
      if (!router || router.currentRoute.value.fullPath === to) return false
      await router.push(to)
      return true
    }, path)
  }

  /** Until this device can open a page without a network: on a busy machine that takes a while after the first visit. */
  async canGoOffline(): Promise<void> {
    await this.page.waitForFunction(
      async () => navigator.serviceWorker.controller !== null && (await caches.match('/shell')) !== undefined,
      { polling: 100 },
    )
  }

  async signIn({ email, password }: { email: string; password: string }): Promise<void> {
    await this.open('/sign-in')
    await this.page.type('#email', email)
    await this.page.type('#password', password)
    await this.keys('Enter')
    await this.at('/')
  }

  async keys(...keys: KeyInput[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key)
  }

  /** Types a reading and commits it with the keyboard. */
  async enter(figure: number | string): Promise<void> {
    await this.page.keyboard.type(String(figure))
    await this.keys('Enter')
  }

  /** Types a reading on the pad and commits it, by touch. */
  async tapIn(figure: number | string): Promise<void> {
    for (const sign of String(figure))
      await this.tap(
        `button[aria-label="${sign === '.' ? 'point' : sign}"], .pad button:not([aria-label="point"])`,
        sign,
      )
    await this.tap('button', 'Keep')
  }

  /** The visible element that matches and, when given, says exactly these words; a button once it can be pressed. */
  private async find(selector: string, text?: string): Promise<ElementHandle<Element>> {
    const found = await this.page
      .waitForFunction(
        (css: string, words: string | null) =>
          [...document.querySelectorAll<HTMLElement>(css)].find(
            (element) =>
              element.offsetParent !== null &&
              !element.matches(':disabled') &&
              (words === null ||
                element.textContent.trim().replace(/\s+/g, ' ') === words ||
                element.ariaLabel === words),
          ) ?? null,
        POLLING,
        selector,
        text ?? null,
      )
      .catch(async () => {
        throw new Error(`no ${selector} ${text ?? ''} here. ${await this.says()}`)
      })
    return found as ElementHandle<Element>
  }

  /** Path and words of the page: what a failing test shows. */
  private says(): Promise<string> {
    return this.page.evaluate(() => `${location.pathname} says:\n${document.body.innerText}`)
  }

  async click(selector: string, text?: string): Promise<void> {
    await (await this.find(selector, text)).click()
  }

  /** Chooses from the menu of a client's page. */
  async more(text: string): Promise<void> {
    await this.click('[data-more]')
    await this.click('[role="menu"] :is(a, button)', text)
  }

  async tap(selector: string, text?: string): Promise<void> {
    await (await this.find(selector, text)).tap()
  }

  /** Opens a list and takes one of it by its id. */
  async choose(name: string, id: string): Promise<void> {
    await this.click(`[data-choose="${name}"]`)
    await this.click(`[data-option="${id}"]`)
    await this.page.waitForFunction(
      (field: string, wanted: string) =>
        document.querySelector(`[data-choose="${field}"]`)?.getAttribute('data-value') === wanted,
      POLLING,
      name,
      id,
    )
  }

  /** What a list stands on. */
  chosen(name: string): Promise<string | null> {
    return this.page.$eval(`[data-choose="${name}"]`, (field) => field.getAttribute('data-value'))
  }

  /** Finds something in a combobox by typing it and takes it from the keyboard. */
  async pick(name: string, words: string): Promise<void> {
    // Behind another page it would get no frames to move its list by.
    await this.page.bringToFront()
    await this.page.waitForSelector(`input[name="${name}"]`)
    await this.page.focus(`input[name="${name}"]`)
    await this.page.$eval(`input[name="${name}"]`, (field) => (field as HTMLInputElement).select())
    await this.page.keyboard.type(words)
    await this.find('[role="option"]', words)
    await this.keys('Enter')
  }

  /** Waits until the page's path is this one. */
  async at(path: string | RegExp): Promise<void> {
    const pattern = typeof path === 'string' ? `^${path}$` : path.source
    await this.page.waitForFunction((source: string) => new RegExp(source).test(location.pathname), POLLING, pattern)
  }

  /** From a client's page to the open log sheet: prepared as proposed, marking skipped. */
  async startMeasuring(): Promise<void> {
    await this.click('a', 'Measure')
    await this.click('button', 'Start')
    await this.click('button', 'Skip marking')
    await this.measuring()
  }

  /** Waits until a log sheet is open for its next entry. */
  async measuring(): Promise<void> {
    await this.at(/^\/measure\//)
    await this.find('section[aria-label="Entry"] h2')
  }

  /** Waits until some visible text is on the page. */
  async sees(text: string): Promise<void> {
    try {
      await this.page.waitForFunction(
        (words: string) => document.body.innerText.replace(/\s+/g, ' ').includes(words),
        POLLING,
        text,
      )
    } catch {
      throw new Error(`“${text}” did not appear. ${await this.says()}`)
    }
  }

  async textOf(selector: string): Promise<string> {
    await this.page.waitForSelector(selector)
    return this.page.$eval(selector, (element) => element.textContent.trim().replace(/\s+/g, ' '))
  }

  /** Replaces what a field holds. */
  async fill(selector: string, text: string): Promise<void> {
    await this.page.waitForSelector(selector)
    await this.page.$eval(selector, (element) => {
      const field = element as HTMLInputElement
      field.value = ''
      field.dispatchEvent(new Event('input', { bubbles: true }))
      field.focus()
    })
    // Date fields take their parts in the browser's own order: they are set whole.
    const isDate = await this.page.$eval(selector, (element) => (element as HTMLInputElement).type === 'date')
    if (!isDate) return this.page.type(selector, text)
    await this.page.$eval(
      selector,
      (element, value) => {
        const field = element as HTMLInputElement
        field.value = value
        field.dispatchEvent(new Event('input', { bubbles: true }))
      },
      text,
    )
  }

  /** What axe finds serious or critical on this page, one line a finding. */
  async seriousFindings(): Promise<string[]> {
    // The page's own policy forbids foreign scripts; the checker is put in from outside it.
    if (!(await this.page.evaluate(() => 'axe' in window)))
      await this.page.evaluate(await (await import('node:fs/promises')).readFile(AXE, 'utf8'))
    return this.page.evaluate(async () => {
      const { axe } = window as unknown as { axe: typeof import('axe-core') }
      const { violations } = await axe.run(document, { resultTypes: ['violations'] })
      return violations
        .filter(({ impact }) => impact === 'serious' || impact === 'critical')
        .map(
          ({ id, nodes }) =>
            `${id}: ${nodes.map(({ html, failureSummary }) => `${html} ${failureSummary}`).join(' | ')}`,
        )
    })
  }

  /** Width by which the page is wider than the screen, CSS pixels. */
  async overflow(): Promise<number> {
    return this.page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
  }

  async close(): Promise<void> {
    await this.page.browserContext().close()
    if (this.faults.length > 0) throw new Error(`Faults in the page: ${this.faults.join('\n')}`)
  }
}

export { launchChromium, type Browser }
