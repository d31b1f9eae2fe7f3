import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { openDossier, watchErrors } from './helpers'

const VIEWS = [
  '/',
  '/tanks',
  'claims',
  'strip',
  'inside',
  'bench',
  'tanks',
  'verdict',
  'run',
  'strip/run',
] as const

for (const theme of ['paper', 'fishroom'] as const)
  test(`every view: axe finds nothing, no script or policy error, ${theme}`, async ({ page }) => {
    const errors = watchErrors(page)
    await page.addInitScript((t) => localStorage.setItem('ypsometer.theme', t), theme)
    const id = await openDossier(page, 'Ledger 700')
    for (const view of VIEWS) {
      if (view === 'run') {
        await page.goto(`/models/${id}/bench`)
        await page
          .getByRole('row', { name: /As proposed/ })
          .getByRole('link', { name: 'Open' })
          .click()
      } else await page.goto(view.startsWith('/') ? view : `/models/${id}/${view}`)
      await page.waitForLoadState('networkidle')
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      if (view === 'bench') await expect(page.locator('svg.recharts-surface').first()).toBeVisible()
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze()
      expect(
        violations.map(
          (v) => `${view}: ${v.id} ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`,
        ),
      ).toEqual([])
    }
    expect(errors).toEqual([])
  })

for (const width of [360, 390, 768, 1600])
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
