import sharp from 'sharp'
import { expect, named, openDossier, saved, sideways, test, watchErrors, type Page } from './helpers'

const NASTY = `<img src=x onerror="document.title='run'"> ${'W'.repeat(120)} \u05D0\u05D1\u05D2`

/** Pages of a PDF, by its own count. */
const pagesOf = (pdf: Buffer): number => (pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g) ?? []).length

async function linkTo(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Create a link' }).click()
  return page.getByLabel('The link').inputValue()
}

test('a review is published, shared, read without an account on a phone, corrected, and taken back', async ({
  page,
  browser,
}) => {
  test.setTimeout(120000)
  await openDossier(page, 'Gale HB', 'verdict')
  await page.getByRole('link', { name: 'Start a review' }).click()
  await page.getByRole('button', { name: 'Write a review of Gale HB' }).click({ timeout: 45000 })
  await expect(page.getByText('Disclosure.')).toBeVisible()
  const title = named('Round it goes')
  await page.getByLabel('Title').fill(title)
  await page.getByLabel('Before the numbers').fill(NASTY)
  await page.getByLabel('Would you buy it?').selectOption('if')
  await page.getByLabel('Reason').fill('With a sealed pad.')
  await page.keyboard.press('Tab')
  await saved(page)
  // No photo, no answered disclosure: it asks, and can be told why it goes out all the same.
  const checklist = page.getByRole('list', { name: 'Checklist' })
  await expect(checklist).toContainText('At least one photo: missing')
  await expect(checklist.getByRole('link', { name: 'At least one photo' })).toHaveAttribute(
    'href',
    /\/strip$/,
  )
  await expect(page.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled()
  await checklist.getByLabel('I have read the preview').check()
  await page.getByLabel(/^Publish anyway, because/).fill('Photos follow next week.')
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByText('Published before it was complete: Photos follow next week.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Publish a correction' })).toBeVisible()
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible()
  // One page is one page, on both papers.
  await page.getByRole('button', { name: 'One page' }).click()
  for (const paper of ['a4', 'letter']) {
    await page.getByLabel('Paper').selectOption(paper)
    expect(pagesOf(await page.pdf({ preferCSSPageSize: true }))).toBe(1)
  }
  const link = await linkTo(page)
  // Somebody else, on a phone: no cookie, no account, nothing of the bench.
  const stranger = await browser.newContext({ viewport: { width: 390, height: 844 } })
  const reader = await stranger.newPage()
  const errors = watchErrors(reader)
  await reader.goto(link)
  await expect(reader.getByRole('heading', { level: 1, name: title })).toBeVisible()
  await expect(reader.getByText('Disclosure.')).toBeVisible()
  await expect(reader.getByText('document.title')).toBeVisible()
  expect(await reader.title()).not.toBe('run')
  expect(await sideways(reader)).toBe(0)
  expect(await stranger.cookies()).toEqual([])
  await expect(reader.getByRole('link', { name: 'Shelf' })).toHaveCount(0)
  const flow = await reader.getByText(/L\/h/).first().textContent()
  await reader.getByRole('button', { name: 'Card' }).click()
  await expect(reader.getByText('Disclosure.')).toBeVisible()
  await expect(reader.getByRole('heading', { name: 'Flow path' })).toHaveCount(0)
  // The dossier moves on; what was said stays.
  await openDossier(page, 'Gale HB', 'claims')
  await page.goto('/reviews')
  await page.getByRole('link', { name: title }).click()
  await page.getByLabel('What was wrong').fill('The pad was called sealed.')
  await page.getByLabel('Why it was').fill('It was looked at once.')
  await checklist.getByLabel('I have read the preview').check()
  await expect(page.getByRole('button', { name: 'Publish the correction' })).toBeDisabled()
  await page.getByLabel(/^Publish anyway, because/).fill('Still no photo.')
  await page.getByRole('button', { name: 'Publish the correction' }).click()
  await expect(page.getByText('Edition 2, published')).toBeVisible()
  await reader.reload()
  await expect(reader.getByText(/Corrected: The pad was called sealed/)).toBeVisible()
  await reader.getByRole('button', { name: /^Edition 1/ }).click()
  await expect(reader.getByText('This edition was corrected since')).toBeVisible()
  expect(await reader.getByText(/L\/h/).first().textContent()).toBe(flow)
  // Taken back: the link says so and shows no number.
  await page.getByText('Withdraw this review').click()
  await page.getByLabel('Why it is withdrawn').fill('The unit was swapped.')
  await page.getByRole('button', { name: 'Withdraw' }).click()
  await expect(page.getByText(/Withdrawn on/)).toBeVisible()
  await reader.reload()
  await expect(reader.getByRole('heading', { name: 'This review was withdrawn' })).toBeVisible()
  await expect(reader.getByText(/L\/h/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Revoke', exact: true }).click()
  await expect(page.getByText(/, revoked/)).toBeVisible()
  await reader.reload()
  await expect(reader.getByRole('heading', { name: 'There is nothing at this link' })).toBeVisible()
  expect(errors).toEqual([])
  await stranger.close()
})

test('every way out gives a file with the disclosure in it', async ({ page }) => {
  await page.goto('/reviews')
  await page.getByRole('link', { name: 'Cheap, and worth refilling' }).click()
  await expect(page.getByRole('heading', { name: 'Numbers changed since publication' })).toBeVisible()
  for (const [name, ending] of [
    ['One HTML file', 'html'],
    ['Markdown', 'zip'],
    ['JSON', 'json'],
    ['Card, SVG', 'svg'],
    ['Card, PNG', 'png'],
    ['Video script', 'txt'],
  ] as const) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name }).click(),
    ])
    expect(file.suggestedFilename()).toBe(`cheap-and-worth-refilling.${ending}`)
    const chunks: Buffer[] = []
    for await (const c of await file.createReadStream()) chunks.push(c as Buffer)
    const bytes = Buffer.concat(chunks)
    expect(bytes.length).toBeGreaterThan(800)
    if (['html', 'json', 'txt'].includes(ending))
      expect(bytes.toString('utf8')).toContain('The unit was bought')
  }
})

test('from nothing to published: a label, a weight, a timed flow, a photo, every question answered, and no override', async ({
  page,
}) => {
  test.setTimeout(120000)
  const station = (name: RegExp) =>
    page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name }).click()
  await page.goto('/')
  await page.getByRole('button', { name: 'New model' }).click()
  const label = page.getByRole('dialog')
  const model = named('Kettle 500')
  await label.getByLabel('Maker').fill('Pellam Works')
  await label.getByLabel('Model', { exact: true }).fill(model)
  await label.getByLabel('Rated flow').fill('500')
  await label.getByLabel('to', { exact: true }).fill('150')
  await page.getByRole('button', { name: 'Add filter' }).click()
  await page.getByRole('button', { name: 'Add the unit' }).click()
  await page.getByLabel('Supplied bio media, dry weight').fill('800 g')
  await page.keyboard.press('Enter')
  await page.getByLabel('Source of this weight').selectOption('scale')
  await station(/Teardown/)
  const disclosure = page.getByRole('group', { name: 'Disclosure' })
  const noes = disclosure.getByRole('button', { name: 'no', exact: true })
  await expect(noes).toHaveCount(6)
  for (const no of await noes.all()) await no.click()
  await page.getByLabel('How you got it').selectOption('bought')
  // Five litres in 40 s are 450 L/h.
  await station(/Bench/)
  await page.getByRole('button', { name: 'Time the flow' }).click()
  await page.getByRole('link', { name: 'Back to Bench' }).click()
  await page
    .getByRole('row', { name: /timed vessel/ })
    .getByRole('link')
    .first()
    .click()
  for (const seconds of ['39.8', '40.1', '40.1']) {
    await page.getByLabel('Volume, L').fill('5')
    await page.getByLabel('Seconds, s').fill(seconds)
    await page.getByRole('button', { name: 'Add', exact: true }).click()
  }
  await expect(page.locator('main')).toContainText(/450 ± \d+\sL\/h/)
  const jpeg = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#557755' } })
    .jpeg()
    .toBuffer()
  await page.getByLabel('Add photos').setInputFiles({ name: 'run.jpg', mimeType: 'image/jpeg', buffer: jpeg })
  await expect(page.getByRole('img', { name: /run|photo/i }).first()).toBeVisible()
  await saved(page)

  await station(/Verdict/)
  await page.getByRole('link', { name: 'Start a review' }).click()
  await page.getByRole('button', { name: `Write a review of ${model}` }).click({ timeout: 45000 })
  const publish = page.getByRole('button', { name: 'Publish', exact: true })
  await expect(publish).toBeDisabled()
  await page.getByLabel('Title').fill(named('Half a kettle'))
  await page.keyboard.press('Tab')
  await saved(page)
  const checklist = page.getByRole('list', { name: 'Checklist' })
  await expect(checklist.getByRole('link')).toHaveCount(0)
  await expect(checklist).not.toContainText('missing')
  await expect(page.getByLabel(/^Publish anyway, because/)).toHaveCount(0)
  await checklist.getByLabel('I have read the preview').check()
  await publish.click()
  await expect(page.getByRole('heading', { name: 'Publish a correction' })).toBeVisible()
  await expect(page.locator('main')).toContainText('The unit was bought. Nobody paid for it.')
  await expect(page.locator('main')).toContainText(/450 ± \d+\sL\/h/)
})
