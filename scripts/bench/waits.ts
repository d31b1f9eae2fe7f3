import { chromium, type Browser, type Page } from '@playwright/test'
import { PAGE_COOKIES } from '@ypsometer/contract/page'
import { randomUUID } from 'node:crypto'
import { createDatabase, throwawayCluster } from '../lib/cluster.mjs'
import { ensureBuild, freePort, startServer } from '../lib/system.mjs'

const median = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN
/** Visits from an address, and how many of them go on through all stations. */
const [ROUNDS, THROUGH] = [11, 5]
const STATIONS = ['Claims', 'Strip', 'Inside', 'Bench', 'Fill', 'Path', 'Tanks', 'Verdict', 'Visits']

/** A page of its own that keeps nothing from the one before. */
async function visit<T>(browser: Browser, look: (page: Page) => Promise<T>): Promise<T> {
  const context = await browser.newContext({ serviceWorkers: 'block' })
  const page = await context.newPage()
  // What the compiler calls in functions it has named.
  await page.addInitScript('globalThis.__name = (f) => f')
  await page.addInitScript(noteStations)
  await page.addInitScript(noteNumbers)
  try {
    return await look(page)
  } finally {
    await context.close()
  }
}
/** In the page: says so once a station stands with its numbers, laid out and painted. */
function noteNumbers(): void {
  const look = (): void => {
    if (document.querySelector('main h2') && !document.querySelector('[data-loading]'))
      setTimeout(() => console.debug('numbers'))
    else requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
}
/** Bytes a page receives until its station stands, counted in a visit of its own: counting takes time. */
async function receivedBy(page: Page, url: string): Promise<number> {
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Network.enable')
  let bytes = 0
  cdp.on('Network.loadingFinished', (e) => (bytes += e.encodedDataLength))
  await toNumbers(page, url)
  await page.waitForFunction(() => !document.getElementById('picture'))
  return bytes
}
/** From an address to its numbers (ms), as the page itself says; what the driver needs to look is not in it. */
const toNumbers = (page: Page, url: string): Promise<number> =>
  taken(async () => {
    const there = page.waitForEvent('console', (m) => m.text() === 'numbers')
    await page.goto(url, { waitUntil: 'commit' })
    await there
  })
/**
 * In the page: how long from a click on a link of the stations until that station stands, with nothing still being
 * worked out; without what the driver needs to aim and to look.
 */
function noteStations(): void {
  const at = globalThis as unknown as { took: number | null }
  addEventListener(
    'click',
    (e) => {
      const from = e.timeStamp
      const path = (e.target as Element).closest('a')?.pathname
      if (!path) return
      at.took = null
      const look = (): void => {
        const here = document.querySelector(`nav a[aria-current="page"][href="${path}"]`)
        if (here && document.querySelector('main h2') && !document.querySelector('[data-loading]'))
          at.took = performance.now() - from
        else requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    },
    { capture: true },
  )
}
const taken = async (work: () => Promise<unknown>): Promise<number> => {
  const from = performance.now()
  await work()
  return performance.now() - from
}

/** From station to station, twice: the first time and again. */
async function throughStations(page: Page, ...rounds: readonly Map<string, number[]>[]): Promise<void> {
  await page.waitForTimeout(6000)
  for (const round of rounds)
    for (const name of STATIONS) {
      await page
        .getByRole('navigation', { name: 'Stations' })
        .getByRole('link', { name: new RegExp(name) })
        .click()
      await page.waitForFunction(() => (globalThis as unknown as { took: number | null }).took)
      const took = await page.evaluate(() => (globalThis as unknown as { took: number }).took)
      round.set(name, [...(round.get(name) ?? []), took])
      await page.waitForTimeout(400)
    }
}

/** A dossier of two hundred timed trials with ten readings each, and logs of ten thousand points. */
async function largeDossier(base: string): Promise<string> {
  const post = async (path: string, body: object): Promise<void> => {
    const r = await fetch(`${base}/api/v1${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID() },
      body: JSON.stringify(body),
    })
    if (!r.ok) throw new Error(`${path}: ${await r.text()}`)
  }
  const modelId = randomUUID()
  await post('/models', { id: modelId, maker: 'Marrowby', name: 'Long record', kind: 'canister' })
  await post('/claims', { id: randomUUID(), modelId, quantity: 'rated-flow', value: 3e-4 })
  const trials = Array.from({ length: 200 }, (_, i) => ({
    id: randomUUID(),
    modelId,
    kind: 'vessel',
    lift: (i % 5) * 0.2,
  }))
  const takenAt = new Date().toISOString()
  const readings = trials.flatMap((t, i) =>
    Array.from({ length: 10 }, (_, r) => ({
      id: randomUUID(),
      trialId: t.id,
      kind: 'vessel',
      takenAt,
      volume: 0.005,
      seconds: 18 + (i % 5) * 2 + r * 0.05,
    })),
  )
  await post('/imports', { trials, readings })
  const power = { id: randomUUID(), modelId, kind: 'power' }
  const times = Array.from({ length: 10_000 }, (_, i) => i)
  const logs = [1, 2].map(() => ({
    id: randomUUID(),
    trialId: power.id,
    startedAt: takenAt,
    times,
    values: times.map((t) => 14 + Math.sin(t / 50)),
  }))
  await post('/imports', { trials: [power], logs })
  return modelId
}

/** Where the user waits, as ratios to an empty page of the same server, and what is received. */
export async function waits(): Promise<void> {
  await ensureBuild()
  const cluster = await throwawayCluster()
  const databaseUrl = await createDatabase(cluster.url, 'waits')
  const port = await freePort()
  const server = await startServer({ port, host: '127.0.0.1', databaseUrl, demo: true })
  const base = `http://127.0.0.1:${port}`
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox'],
  })
  try {
    const { items } = (await (await fetch(`${base}/api/v1/models?limit=50`)).json()) as {
      items: { model: { id: string; name: string } }[]
    }
    const id = items.find((m) => m.model.name === 'Ledger 700')?.model.id ?? ''
    const verdict = `${base}/models/${id}/verdict`
    const empty: number[] = []
    const [full, undrawn]: [number[], number[]] = [[], []]
    // Between what the server drew and the app in its place.
    const after: number[] = []
    const [first, again] = [new Map<string, number[]>(), new Map<string, number[]>()]
    const received = await visit(browser, (page) => receivedBy(page, verdict))
    for (let i = 0; i < ROUNDS; i++) {
      empty.push(await visit(browser, (page) => taken(() => page.goto(`${base}/shell.json`))))
      undrawn.push(
        await visit(browser, async (page) => {
          // As where something waits on the device: the server draws nothing.
          await page.context().addCookies([{ name: PAGE_COOKIES.waiting, value: '1', url: base }])
          return toNumbers(page, verdict)
        }),
      )
      await visit(browser, async (page) => {
        full.push(await toNumbers(page, verdict))
        const drawn = performance.now()
        await page.waitForFunction(() => !document.getElementById('picture'))
        after.push(performance.now() - drawn)
        if (i >= ROUNDS - THROUGH) await throughStations(page, first, again)
      })
    }
    const ratio = median(full) / median(empty)
    console.log(
      `from address to numbers      ${median(full).toFixed(0)} ms · empty page ${median(empty).toFixed(0)} ms · ${ratio.toFixed(1)} times · target 3 times · by the app alone ${median(undrawn).toFixed(0)} ms · the app in its picture’s place ${median(after).toFixed(0)} ms later · ${(received / 1000).toFixed(0)} kB received`,
    )
    const said = (round: ReadonlyMap<string, readonly number[]>): string => {
      const each = [...round].map(([name, ms]) => [name, median(ms)] as const).sort((a, b) => b[1] - a[1])
      const slow = each.slice(0, 3).map(([name, ms]) => `${name} ${ms.toFixed(0)}`)
      return `${median(each.map(([, ms]) => ms)).toFixed(0)} ms (slowest ${slow.join(', ')})`
    }
    console.log(
      `between stations             first time ${said(first)}, again ${said(again)} · target 100 ms on a quiet machine`,
    )
    const large = await largeDossier(base)
    const longest = await visit(browser, async (page) => {
      await page.addInitScript(() => {
        const seen: number[] = []
        Object.assign(globalThis, { blocks: seen })
        new PerformanceObserver((l) => l.getEntries().forEach((e) => seen.push(e.duration))).observe({
          type: 'longtask',
        })
      })
      await page.goto(`${base}/models/${large}/bench`)
      await page.getByRole('table').first().waitFor()
      await page.waitForTimeout(3000)
      await page.mouse.wheel(0, 4000)
      await page.waitForTimeout(1500)
      return page.evaluate(() => Math.max(0, ...(globalThis as unknown as { blocks: number[] }).blocks))
    })
    const raw = await fetch(`${base}/api/v1/models/${large}/dossier`)
    console.log(
      `dossier of 200 trials        longest block ${longest.toFixed(0)} ms · target 100 ms · ${((await raw.text()).length / 1000).toFixed(0)} kB before compression`,
    )
  } finally {
    await browser.close()
    server.kill('SIGTERM')
    cluster.stop()
  }
}
