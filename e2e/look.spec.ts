import type axe from 'axe-core'
import type { AxeResults } from 'axe-core'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, openDossier, settled, sideways, test, watchErrors, within, type Page } from './helpers'

/** Each of these looks at pages and changes nothing. */
test.describe.configure({ mode: 'parallel' })

const VIEWS = [
  '/',
  '/tanks',
  '/library',
  '/rules',
  '/stock',
  '/advise',
  '/compare?m=f100f68e-c1c3-441a-8c34-37023aa4b3e9,06ea9f9f-bbee-408a-8c30-7d22bd40beff',
  '/rankings',
  '/upkeep',
  '/faults',
  '/faults?kind=canister&symptom=rattle',
  'change',
  '/reviews',
  '/documents',
  '/people',
  '/history',
  'review',
  'claims',
  'strip',
  'inside',
  'bench',
  'fill',
  'path',
  'tanks',
  'verdict',
  'visits',
  'visits/run',
  'set-up/run',
  'run',
  'strip/run',
] as const

/** The small form of it: half as much for a page to read. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
/**
 * Puts axe into the page, where it is not yet; contrast is looked at where `markStyles` says. Parts that wait until they
 * are near are laid out too: what is wider than the page is then seen, and not cut off by them.
 */
const putAxe = async (page: Page): Promise<void> => {
  if (await page.evaluate(() => 'axe' in globalThis)) return
  await page.evaluate(AXE)
  await page.evaluate((id) => {
    const here = globalThis as unknown as { axe: typeof axe }
    here.axe.configure({ rules: [{ id, selector: '[data-one]' }] })
    const whole = new CSSStyleSheet()
    whole.replaceSync('.as-needed { content-visibility: visible !important }')
    document.adoptedStyleSheets = [whole]
  }, CONTRAST)
}
/** What axe finds in a page that it was put into. */
const runAxe = (page: Page, rules: readonly string[]): Promise<AxeResults['violations']> =>
  page.evaluate(
    async (runOnly) => {
      const here = globalThis as unknown as { axe: typeof axe }
      return (await here.axe.run('html', { runOnly, resultTypes: ['violations'] })).violations
    },
    [...rules],
  )
const WCAG = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']
const CONTRAST = 'color-contrast'

/**
 * Marks, of the elements with words of their own, one of each that is styled alike: by everything that a style may go
 * by, on it and on all that it stands in; also across views, while one page goes from view to view. What is drawn
 * (SVG) is marked each, because it stands on other drawings.
 */
const markStyles = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const ofStyle = (name: string): boolean =>
      !/^(id|href|title|d|value|name|for|data-one|aria-(label|.*by|controls))$/.test(name)
    const here = globalThis as unknown as { seen?: Set<string> }
    const seen = (here.seen ??= new Set())
    for (const el of document.body.querySelectorAll('*')) {
      if (![...el.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && n.textContent?.trim())) continue
      const chain: string[] = []
      for (let e: Element | null = el; e; e = e.parentElement)
        chain.push(
          e.tagName,
          ...[...e.attributes].filter((a) => ofStyle(a.name)).map((a) => `${a.name}=${a.value}`),
        )
      const style = chain.join(' ')
      if (!el.closest('svg') && seen.has(style)) continue
      seen.add(style)
      el.setAttribute('data-one', '')
    }
  })

/** What axe finds on the page as it stands: WCAG 2.2 AA, and in each theme the contrast of all that is styled alike. */
async function axeFinds(page: Page, where: string): Promise<string[]> {
  const found: string[] = []
  // Colours that still fade from one theme to the other are neither’s.
  await page.emulateMedia({ reducedMotion: 'reduce' })
  await putAxe(page)
  await markStyles(page)
  for (const [theme, rules] of [
    ['fishroom', [CONTRAST]],
    ['paper', WCAG],
  ] as const) {
    await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme)
    for (const v of await runAxe(page, rules))
      found.push(
        `${where}, ${theme}: ${v.id} ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`,
      )
  }
  await page.evaluate(() =>
    document.querySelectorAll('[data-one]').forEach((e) => e.removeAttribute('data-one')),
  )
  return found
}

/** Goes on to a view; a page is read anew only for another question to the view that is there. */
function open(page: Page, id: string, view: string): Promise<unknown> {
  const to = view.startsWith('/') ? view : `/models/${id}/${view}`
  return new URL(to, page.url()).pathname === new URL(page.url()).pathname ? page.goto(to) : within(page, to)
}

/** The demo’s set-up at a step that was refused, and its change-over half way. */
async function openSetUp(page: Page): Promise<void> {
  await openDossier(page, 'Torrent 1400', 'visits')
  await page.getByRole('link', { name: '3 Aug 2026' }).click()
  await page.getByRole('button', { name: /Trays lie level/ }).click()
}
async function openChange(page: Page): Promise<void> {
  await within(page, '/tanks')
  await page.getByRole('link', { name: /Optician, corner/ }).click()
  await page.getByRole('link', { name: 'Triptych 600 to Ledger 700' }).click()
  await expect(page.getByText('Water forecast at full feeding')).toBeVisible({ timeout: 20000 })
}

async function openReview(page: Page): Promise<void> {
  await within(page, '/reviews')
  await page.getByRole('link', { name: 'Cheap, and worth refilling' }).click()
  await expect(page.getByRole('heading', { name: 'Numbers changed since publication' })).toBeVisible()
}

/** Holds a view against the widths of a phone, a tablet and a large screen, where it stands. */
async function neverSideways(page: Page, view: string): Promise<void> {
  for (const width of [360, 768, 1600]) {
    await page.setViewportSize({ width, height: 844 })
    // A chart takes its new width in a frame of its own.
    await expect.poll(async () => `${view} ${width} ${await sideways(page)}`).toBe(`${view} ${width} 0`)
  }
  await page.setViewportSize({ width: 1280, height: 800 })
}

const THIRD = Math.ceil(VIEWS.length / 3)
for (const [which, views] of [
  ['first', VIEWS.slice(0, THIRD)],
  ['second', VIEWS.slice(THIRD, 2 * THIRD)],
  ['last', VIEWS.slice(2 * THIRD)],
] as const)
  test(`every view, the ${which} third: axe finds nothing in either theme, no script or policy error, nothing scrolls sideways, and it has a name`, async ({
    page,
  }) => {
    test.setTimeout(150000)
    const errors = watchErrors(page)
    const names = new Set<string>()
    await page.addInitScript(() => localStorage.setItem('ypsometer.theme', 'paper'))
    const id = await openDossier(page, 'Ledger 700')
    for (const view of views) {
      if (view === 'run') {
        await open(page, id, 'bench')
        await page
          .getByRole('row', { name: /Recommended/ })
          .getByRole('link', { name: 'Bench', exact: true })
          .click()
      } else if (view === 'visits/run') {
        await open(page, id, 'visits')
        await page.getByRole('link', { name: '26 Oct 2026' }).click()
      } else if (view === 'set-up/run') await openSetUp(page)
      else if (view === 'change') await openChange(page)
      else if (view === 'review') await openReview(page)
      else await open(page, id, view)
      // Until the screen at the sink stands, the desk it was opened from does.
      if (view.endsWith('run'))
        await expect(page.getByRole('navigation', { name: 'Stations' })).toHaveCount(0)
      await settled(page)
      if (view === 'bench') await expect(page.locator('svg.recharts-surface').first()).toBeVisible()
      names.add(await page.title())
      expect(await axeFinds(page, view)).toEqual([])
      if (!view.endsWith('run') || view === 'strip/run') await neverSideways(page, view)
    }
    expect([...names].filter((name) => / · Ypsometer$/.test(name))).toHaveLength(views.length)
    expect(errors).toEqual([])
  })

test('bench buttons are at least 56 px on a phone, and the clock takes the lower half', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await openDossier(page, 'Ledger 700')
  await open(page, id, 'bench')
  await page.getByRole('button', { name: 'Time the flow' }).click()
  for (const name of ['Back to Bench', 'Start timing'])
    expect(
      (await page.getByLabel(name).or(page.getByRole('button', { name })).first().boundingBox())?.height,
    ).toBeGreaterThanOrEqual(55)
  await page.getByRole('button', { name: 'Start timing' }).click()
  const start = await page.getByRole('button', { name: /Start run/ }).boundingBox()
  expect(start?.height).toBeGreaterThan(844 * 0.44)
  expect((start?.y ?? 0) + (start?.height ?? 0)).toBeGreaterThan(840)
})

/**
 * Buttons too small for a wet thumb. A file is chosen by the words around its field; numbers that open their working
 * and the small crosses of a list are not what one aims at.
 */
const smallTargets = (page: Page): Promise<string[]> =>
  page.getByRole('button').evaluateAll((buttons) =>
    buttons
      .filter(
        (b) =>
          b.getAttribute('title') === null && !/^(Remove|Exclude)/.test(b.getAttribute('aria-label') ?? ''),
      )
      .map((b) => b.closest('label') ?? b)
      .filter((b) => b.checkVisibility() && Math.round(b.getBoundingClientRect().height) < 48)
      .map((b) => `${b.textContent} ${b.getBoundingClientRect().height} px`),
  )

for (const [name, kinds] of [
  [
    'Triptych 600',
    ['vessel', 'shut-off', 'power', 'noise', 'prime', 'holding', 'dye', 'water-test', 'clarity'],
  ],
  ['Bellows S2', ['air']],
] as const)
  test(`every kind of trial on ${name}, at the bench and at the desk: axe finds nothing, nothing scrolls sideways`, async ({
    page,
  }) => {
    test.setTimeout(150000)
    const errors = watchErrors(page)
    await page.addInitScript(() => localStorage.setItem('ypsometer.theme', 'paper'))
    await page.setViewportSize({ width: 390, height: 844 })
    const id = await openDossier(page, name)
    const { trials } = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
      trials: { id: string; kind: string }[]
    }
    for (const kind of kinds) {
      const trial = trials.find((t) => t.kind === kind)
      for (const path of [`bench/${trial?.id}`, `bench/${trial?.id}/run`]) {
        const where = `${kind} ${path.slice(-3)}`
        await open(page, id, path)
        await settled(page)
        expect(`${where} ${await sideways(page)}`).toBe(`${where} 0`)
        expect(await axeFinds(page, where)).toEqual([])
        if (path.endsWith('run')) expect([where, await smallTargets(page)]).toEqual([where, []])
      }
    }
    expect(errors).toEqual([])
  })
