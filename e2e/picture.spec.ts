import { expect, openDossier, saved, savesData, test, toPicture, watchErrors, type Page } from './helpers'

test.use({ ahead: true })

const CODE = /\/assets\/[^/]+\.js$/
/** The server draws a station ahead once the thread that does it runs. */
const drawnAhead = (page: Page, url: string): Promise<void> =>
  expect.poll(async () => (await page.request.get(url)).text()).toContain('id="picture"')
/** What stands on a page, line by line. */
const lines = async (page: Page): Promise<string[]> =>
  (await page.locator('#root').innerText())
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)

test('numbers stand before any code has come, and the app that takes their place says the same', async ({
  page,
}) => {
  const id = await openDossier(page, 'Ledger 700')
  for (const station of ['strip', 'inside', 'verdict']) {
    const url = `/models/${id}/${station}`
    await drawnAhead(page, url)
    const other = await page.context().newPage()
    const errors = watchErrors(other)
    let cut = true
    await other.route(CODE, (route) => (cut ? route.abort() : route.continue()))
    // On a busy machine one may come too late for its page, and is there for the next.
    await expect(async () => {
      await toPicture(other, url)
      await expect(other.locator('#picture')).toHaveCount(1, { timeout: 1 })
    }).toPass()
    await expect(other.getByRole('heading', { level: 1, includeHidden: true })).toHaveText('Ledger 700')
    const picture = await lines(other)
    expect(errors.filter((e) => /policy/i.test(e))).toEqual([])
    // It is looked at, not worked with.
    await other.keyboard.press('Tab')
    expect(await other.evaluate(() => document.activeElement?.tagName)).toBe('BODY')
    cut = false
    await expect(other.locator('#picture')).toHaveCount(0)
    await expect(other.getByText('Drawing…')).toHaveCount(0)
    const app = await lines(other)
    const gone = picture.filter((l) => !app.includes(l))
    // What is drawn from many trials comes from a worker.
    expect(gone.filter((l) => !/^(Drawing…|Calculating the confidence …)$/.test(l))).toEqual([])
    expect(picture.filter((l) => /\d/.test(l)).length).toBeGreaterThan(10)
    await other.close()
  }
})

test('what waits on this device is never hidden behind an older picture', async ({ page }) => {
  const id = await openDossier(page, 'Ledger 700', 'claims')
  await drawnAhead(page, `/models/${id}/claims`)
  let cut = true
  await page.route(/\/api\/v1\/models\/[^/]+$/, (route) =>
    cut && route.request().method() === 'PATCH' ? route.abort() : route.continue(),
  )
  const note = page.getByLabel('Note', { exact: true }).first()
  const before = await note.inputValue()
  await note.fill(`${before} Seen again.`)
  await note.press('Tab')
  await expect(page.getByRole('status').filter({ hasText: /Offline/ })).toBeVisible()
  const html = await (await page.reload())?.text()
  expect(html).not.toContain('id="picture"')
  await expect(note).toHaveValue(`${before} Seen again.`)
  cut = false
  await saved(page)
  await drawnAhead(page, `/models/${id}/claims`)
  await note.fill(before)
  await note.press('Tab')
  await saved(page)
})

test('code that did not come while the server was away comes when it is back', async ({ page }) => {
  const id = await openDossier(page, 'Ledger 700', 'claims')
  let cut = true
  // As a page finds it whose server goes away just after it was opened.
  await page.route(/\/assets\/assess\.worker|\/assets\/ImportDialog|\/api\/v1\/health/, (route) =>
    cut ? route.abort() : route.continue(),
  )
  await page.goto(`/models/${id}/bench`)
  await page.getByRole('button', { name: 'Paste or import' }).click()
  await page.waitForTimeout(300)
  await expect(page.getByRole('heading', { level: 1, name: 'Ledger 700' })).toBeVisible()
  cut = false
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  // A dossier that was changed is worked out by the worker: a claim of 600 L/h where 700 were printed.
  await page.goto(`/models/${id}/claims`)
  const rated = page
    .getByRole('row', { name: /^Rated flow/ })
    .getByRole('textbox')
    .first()
  cut = true
  await page.reload()
  await rated.fill('600 L/h')
  await rated.press('Tab')
  await saved(page)
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Verdict/ })
    .click()
  cut = false
  await expect(page.getByRole('main')).toContainText(/below the rated\s*600\sL\/h/)
  await page.goto(`/models/${id}/claims`)
  await rated.fill('700 L/h')
  await rated.press('Tab')
  await saved(page)
})

test('what the next station needs comes before it is asked for, and not to a reader who saves data', async ({
  page,
  browser,
  bench,
}) => {
  const codeOf = (of: Page): Promise<string[]> =>
    of.evaluate(() =>
      performance
        .getEntriesByType('resource')
        .flatMap((e) => /\/assets\/([A-Za-z]+)-[^/]*\.js$/.exec(e.name)?.[1] ?? []),
    )
  const saving = await browser.newContext({ baseURL: bench.url })
  await savesData(saving)
  const other = await saving.newPage()
  await openDossier(other, 'Ledger 700', 'verdict')
  // Opened after the other: what this one has by now, that one would have had as well.
  await openDossier(page, 'Ledger 700', 'verdict')
  const others = ['strip', 'bench', 'fill', 'path', 'visits', 'HeadFlow']
  await expect.poll(() => codeOf(page)).toEqual(expect.arrayContaining(others))
  const had = await codeOf(other)
  expect(others.filter((name) => had.includes(name))).toEqual([])
  await other
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Flow path/ })
    .click()
  await expect(other.getByRole('heading', { name: 'Layer by layer' })).toBeVisible()
  await saving.close()
})
