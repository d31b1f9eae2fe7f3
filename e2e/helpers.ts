import {
  expect,
  test as base,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
} from '@playwright/test'
import { TestBench } from './bench'

let bench: TestBench

/** A reader who asked the browser to save data: it tells the server and the page. */
export async function savesData(context: BrowserContext): Promise<void> {
  await context.setExtraHTTPHeaders({ 'save-data': 'on' })
  await context.addInitScript(() =>
    Object.defineProperty(navigator, 'connection', { value: { saveData: true }, configurable: true }),
  )
}

/** How a page is gone to by itself, which shows what the server drew of it. */
let goBare: Page['goto'] | undefined
/** Goes to an address, and waits for nothing of the app. */
export const toPicture = (page: Page, url: string): Promise<unknown> => (goBare ?? page.goto).call(page, url)

/**
 * What a test does next is meant for the app, not for what the server drew of it: every page of every context is gone
 * to until the app has taken its picture's place.
 */
async function untilTheApp(browser: Browser): Promise<void> {
  const page = await browser.newPage()
  const any = Object.getPrototypeOf(page) as Page
  await page.close()
  if (goBare) return
  const after = <A extends unknown[], T>(go: (this: Page, ...given: A) => Promise<T>) =>
    async function (this: Page, ...given: A): Promise<T> {
      const answer = await go.apply(this, given)
      await expect(this.locator('#picture')).toHaveCount(0)
      return answer
    }
  goBare = any.goto
  any.goto = after(any.goto)
  any.reload = after(any.reload)
  any.goBack = after(any.goBack)
  any.goForward = after(any.goForward)
}

/**
 * The tests of this project: each worker has a bench of its own, which dies with it. Its readers save data: nothing is
 * fetched or worked out before it is asked for, unless a test says that it goes `ahead`.
 */
export const test = base.extend<{ ahead: boolean }, { bench: TestBench }>({
  ahead: [false, { option: true }],
  context: async ({ context, ahead }, use) => {
    if (!ahead) await savesData(context)
    await use(context)
  },
  bench: [
    async ({ browser }, use) => {
      bench = await TestBench.open()
      await untilTheApp(browser)
      await use(bench)
      bench.close()
    },
    { scope: 'worker', auto: true, timeout: 60000 },
  ],
  baseURL: ({ bench }, use) => use(bench.url),
})
export { expect, type Page }

/** Kills this worker's server, as a crash would. */
export const stopServer = (): Promise<void> => bench.stopServer()
/** Starts it again on the same database. */
export const startServer = (): Promise<void> => bench.startServer()
/** Says something to the simulated bench by SCPI; what its error queue answers. */
export const rig = (command: string): Promise<string> => bench.tell(command)
/** Kills the simulated bench, and starts it anew. */
export const rigStop = (): Promise<void> => bench.stopRig()
export const rigStart = (): Promise<void> => bench.startRig()

/** Opens a demo dossier by its model's name, at its address; the way there from the shelf is a newcomer's (newcomer.spec.ts). */
export async function openDossier(page: Page, name: string, station = 'claims'): Promise<string> {
  const found = await page.request.get(`/api/v1/models?q=${encodeURIComponent(name)}`)
  const { items } = (await found.json()) as { items: { model: { id: string; name: string } }[] }
  const id = items.find(({ model }) => model.name === name)?.model.id ?? ''
  await page.goto(`/models/${id}/${station}`)
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
  return id
}

/** Goes on to an address of another view within the app that is there, as its links do: no page is read anew. */
export async function within(page: Page, to: string): Promise<void> {
  await page.evaluate((path) => {
    Object.assign(window, { before: document.querySelector('h1') })
    history.pushState(null, '', path)
    dispatchEvent(new PopStateEvent('popstate'))
  }, to)
  await page.waitForFunction((path) => {
    const { before } = window as unknown as { before: Element | null }
    const station = document.querySelector<HTMLAnchorElement>('nav[aria-label=Stations] [aria-current=page]')
    return !before?.isConnected || (station && path.startsWith(station.pathname))
  }, to)
}

/** Waits until everything typed has reached the server. */
export const saved = (page: Page): Promise<void> =>
  expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible({ timeout: 15000 })

/** Errors of the page: exceptions and anything the security policy blocked. */
export function watchErrors(page: Page): string[] {
  const found: string[] = []
  page.on('pageerror', (e) => found.push(e.message))
  page.on('console', (m) => {
    if (m.type() === 'error' && !/Failed to load resource|net::ERR/.test(m.text())) found.push(m.text())
  })
  return found
}

/** Presses a key while a row is moved by keyboard, and waits until the move was said. */
export async function heard(page: Page, key: string, said: RegExp): Promise<void> {
  await page.keyboard.press(key)
  await expect(page.locator('[id^="DndLiveRegion"]').filter({ hasText: said })).toHaveCount(1)
}

/**
 * Takes a row up by its grip with the keyboard. Its focus scrolls the page, whose head gets smaller then: a row is taken
 * up once it stands, or it would be held against where the others were.
 */
export async function takeUp(grip: Locator, said: RegExp): Promise<void> {
  await grip.focus()
  await grip.click({ trial: true })
  await heard(grip.page(), 'Space', said)
}

/** Moves the row that is held up until it is said to be at the top: a key pressed while the rows still move may not count. */
export const upToTheTop = (page: Page, name: string): Promise<void> =>
  expect(async () => {
    await page.keyboard.press('ArrowUp')
    await expect(page.getByText(`${name} at place 1 of `)).toHaveCount(1, { timeout: 400 })
  }).toPass()

/** Counts what a person does: a press, a text typed, a choice. */
export function counter() {
  let made = 0
  return {
    did: async (...actions: readonly (() => Promise<unknown>)[]): Promise<void> => {
      for (const act of actions) {
        await act()
        made++
      }
    },
    made: () => made,
  }
}

/** A name for something new: another one at a second try, because the first may be there already. */
export const named = (name: string): string => (test.info().retry ? `${name} again` : name)

/** Waits until the stopwatch of a bench screen shows more than so many seconds. */
export const clockShows = (page: Page, seconds: number): Promise<void> =>
  expect
    .poll(
      async () => parseFloat((await page.locator('main ~ * .num[aria-hidden]').first().textContent()) ?? ''),
      {
        intervals: [30],
      },
    )
    .toBeGreaterThan(seconds)

/** Frame times (ms) of a page from now on; each call gives those since the last, once there are so many. */
export async function framesOf(
  page: Page,
): Promise<(least: number) => Promise<{ median: number; slow: number; count: number }>> {
  await page.evaluate(() => {
    const kept = window as unknown as { frames: number[] }
    kept.frames = []
    let last = performance.now()
    const tick = (now: number): void => {
      kept.frames.push(now - last)
      last = now
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  return async (least) => {
    await page.waitForFunction(
      (n) => (window as unknown as { frames: number[] }).frames.length >= n,
      least + 2,
    )
    const taken = await page.evaluate(() => {
      const kept = window as unknown as { frames: number[] }
      const taken = kept.frames.slice(2).sort((a, b) => a - b)
      kept.frames = []
      return taken
    })
    const at = (share: number): number => taken[Math.floor(share * (taken.length - 1))] ?? NaN
    return { median: at(0.5), slow: at(0.95), count: taken.length }
  }
}

/** Waits until a view stands: its heading is there and nothing on it is still being loaded. */
export async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.locator('[data-loading]')).toHaveCount(0)
}

/** How many px a page is wider than its window. */
export const sideways = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
