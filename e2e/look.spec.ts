import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { openDossier, watchErrors } from './helpers'

const VIEWS = [
  '/',
  '/tanks',
  '/library',
  '/rules',
  'claims',
  'strip',
  'inside',
  'bench',
  'fill',
  'path',
  'tanks',
  'verdict',
  'run',
  'strip/run',
] as const

/** All of WCAG 2.2 AA in the light theme; the dark one differs in its colours alone. */
const axe = (page: Page, theme: 'paper' | 'fishroom'): AxeBuilder =>
  theme === 'paper'
    ? new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    : new AxeBuilder({ page }).withRules(['color-contrast'])

for (const theme of ['paper', 'fishroom'] as const)
  test(`every view: axe finds nothing, no script or policy error, ${theme}`, async ({ page }) => {
    test.setTimeout(150000)
    const errors = watchErrors(page)
    await page.addInitScript((t) => localStorage.setItem('ypsometer.theme', t), theme)
    const id = await openDossier(page, 'Ledger 700')
    for (const view of VIEWS) {
      if (view === 'run') {
        await page.goto(`/models/${id}/bench`)
        await page
          .getByRole('row', { name: /As proposed/ })
          .getByRole('link', { name: 'Bench', exact: true })
          .click()
      } else await page.goto(view.startsWith('/') ? view : `/models/${id}/${view}`)
      await page.waitForLoadState('networkidle')
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      if (view === 'bench') await expect(page.locator('svg.recharts-surface').first()).toBeVisible()
      const { violations } = await axe(page, theme).analyze()
      expect(
        violations.map(
          (v) => `${view}: ${v.id} ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`,
        ),
      ).toEqual([])
    }
    expect(errors).toEqual([])
  })

for (const width of [360, 768, 1600])
  test(`no view scrolls sideways at ${width} px`, async ({ page }) => {
    await page.setViewportSize({ width, height: 844 })
    const id = await openDossier(page, 'Torrent 1400')
    for (const view of VIEWS.filter((v) => v !== 'run')) {
      await page.goto(view.startsWith('/') ? view : `/models/${id}/${view}`)
      await page.waitForLoadState('networkidle')
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      )
      expect(`${view} ${over}`).toBe(`${view} 0`)
    }
  })

test('bench buttons are at least 56 px on a phone, and the clock takes the lower half', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await openDossier(page, 'Ledger 700')
  await page.goto(`/models/${id}/bench`)
  await page.getByRole('button', { name: 'New timing' }).click()
  for (const name of ['Back to the bench', 'To the clock'])
    expect(
      (await page.getByLabel(name).or(page.getByRole('button', { name })).first().boundingBox())?.height,
    ).toBeGreaterThanOrEqual(55)
  await page.getByRole('button', { name: 'To the clock' }).click()
  const start = await page.getByRole('button', { name: /Start run/ }).boundingBox()
  expect(start?.height).toBeGreaterThan(844 * 0.44)
  expect((start?.y ?? 0) + (start?.height ?? 0)).toBeGreaterThan(840)
})

for (const theme of ['paper', 'fishroom'] as const)
  test(`every kind of trial, at the bench and at the desk: axe finds nothing, nothing scrolls sideways, ${theme}`, async ({
    page,
  }) => {
    test.setTimeout(180000)
    const errors = watchErrors(page)
    await page.addInitScript((t) => localStorage.setItem('ypsometer.theme', t), theme)
    await page.setViewportSize({ width: 390, height: 844 })
    for (const [name, kinds] of [
      ['Triptych 600', ['vessel', 'shut-off', 'power', 'noise', 'prime', 'holding', 'dye']],
      ['Bellows S2', ['air']],
    ] as const) {
      const id = await openDossier(page, name)
      const { trials } = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
        trials: { id: string; kind: string }[]
      }
      for (const kind of kinds) {
        const trial = trials.find((t) => t.kind === kind)
        for (const path of [`bench/${trial?.id}`, `bench/${trial?.id}/run`]) {
          await page.goto(`/models/${id}/${path}`)
          await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
          await page.waitForTimeout(400)
          const over = await page.evaluate(
            () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
          )
          expect(`${kind} ${path.slice(-3)} ${over}`).toBe(`${kind} ${path.slice(-3)} 0`)
          const { violations } = await axe(page, theme).analyze()
          expect(
            violations.map(
              (v) =>
                `${kind} ${path.slice(-3)}: ${v.id} ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`,
            ),
          ).toEqual([])
          if (path.endsWith('run') && theme === 'paper')
            for (const b of await page.getByRole('button').all()) {
              const box = await b.boundingBox()
              // Numbers that open their working and the small crosses of a list are not what a wet thumb aims at.
              if (
                box &&
                (await b.getAttribute('title')) === null &&
                !/Take out/.test((await b.getAttribute('aria-label')) ?? '')
              )
                expect([kind, await b.textContent(), Math.round(box.height) >= 48]).toEqual([
                  kind,
                  await b.textContent(),
                  true,
                ])
            }
        }
      }
    }
    expect(errors).toEqual([])
  })
