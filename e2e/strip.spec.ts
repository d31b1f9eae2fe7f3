import { truncateSync, writeFileSync } from 'node:fs'
import sharp from 'sharp'
import {
  expect,
  test,
  type Page,
  heard,
  takeUp,
  named,
  openDossier,
  saved,
  upToTheTop,
  watchErrors,
} from './helpers'

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true }
interface Part {
  name: string
  moves: number
  seconds: number
  position: number
  findings: string[]
}

/** A fresh canister with nothing recorded, made through the API. */
async function freshModel(page: Page, wanted: string): Promise<string> {
  const id = crypto.randomUUID()
  const made = await page.request.post('/api/v1/models', {
    headers: { 'idempotency-key': crypto.randomUUID() },
    data: { id, maker: 'Quillon', name: named(wanted), kind: 'canister' },
  })
  expect(made.status()).toBe(201)
  return id
}
const partsOf = async (page: Page, id: string): Promise<Part[]> => {
  const d = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as { parts: Part[] }
  return d.parts.sort((a, b) => a.position - b.position)
}

test.describe('a strip of 40 parts on a phone', () => {
  test.use(PHONE)

  test('by taps alone', async ({ page }) => {
    const errors = watchErrors(page)
    const id = await freshModel(page, 'Forty taps')
    await page.goto(`/models/${id}/strip`)
    await page.getByRole('link', { name: 'Start teardown' }).tap()
    await page.getByRole('button', { name: /Start the clock/ }).tap()
    // One part with another name chosen, three moves and a condition, by tap.
    await page
      .getByRole('group', { name: 'Usual parts still on it' })
      .getByRole('button', { name: 'Hoses' })
      .tap()
    await page.getByRole('button', { name: 'One move more' }).tap()
    await page.getByRole('button', { name: 'One move more' }).tap()
    await page.getByRole('button', { name: /Off: Hoses/ }).tap()
    await page.getByRole('button', { name: 'slips' }).tap()
    for (let i = 2; i <= 40; i++) {
      await page
        .getByRole('button', { name: /^Off: |s Off: /i })
        .last()
        .tap()
      await expect(
        page
          .getByRole('region', { name: /^Last part/ })
          .locator('.num')
          .first(),
      ).toHaveText(String(i))
    }
    await expect(page.getByText('Saved')).toBeVisible({ timeout: 20000 })
    const parts = await partsOf(page, id)
    expect(parts).toHaveLength(40)
    expect(parts[0]).toMatchObject({ name: 'Hoses', moves: 3, findings: ['slips'] })
    expect(parts[1]?.name).toBe('Quick-release taps')
    expect(new Set(parts.map((p) => p.name)).size).toBe(40)
    expect(parts.every((p) => p.seconds >= 0)).toBe(true)
    for (const button of await page.locator('main button:visible').all())
      expect((await button.boundingBox())?.height).toBeGreaterThanOrEqual(55)
    expect(errors).toEqual([])
  })

  test('by keyboard alone', async ({ page }) => {
    const id = await freshModel(page, 'Forty keys')
    await page.goto(`/models/${id}/strip/run`)
    await expect(page.getByRole('button', { name: /Start the clock/ })).toBeVisible()
    await page.keyboard.press('Space')
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('4')
    await page.keyboard.press('Space')
    for (let i = 2; i <= 41; i++) {
      await page.keyboard.press('Space')
      await expect(
        page
          .getByRole('region', { name: /^Last part/ })
          .locator('.num')
          .first(),
      ).toHaveText(String(i))
    }
    await page.keyboard.press('Backspace')
    await expect(
      page
        .getByRole('region', { name: /^Last part/ })
        .locator('.num')
        .first(),
    ).toHaveText('40')
    await expect(page.getByText('Saved')).toBeVisible({ timeout: 20000 })
    const parts = await partsOf(page, id)
    expect(parts).toHaveLength(40)
    expect(parts[0]).toMatchObject({ name: 'Hoses', moves: 4 })
  })
})

test('the order is mended by drag and by keyboard, and reach follows it', async ({ page }) => {
  const id = await openDossier(page, 'Plainbody 1000', 'strip')
  const list = page.getByRole('list', { name: 'Parts' }).getByRole('listitem')
  await expect(list.first()).toContainText('Quick-release taps')
  const before = await partsOf(page, id)
  // Independent of the app: seconds up to and with the pre-filter basket.
  const sum = (parts: Part[], name: string): number => {
    const end = parts.findIndex((p) => p.name === name)
    return parts.slice(0, end + 1).reduce((s, p) => s + p.seconds, 0)
  }
  const row = page.getByRole('row', { name: /the pre-filter/ })
  await expect(row).toContainText(sum(before, 'Pre-filter basket').toFixed(0))

  const moved = page.getByRole('button', { name: /Move Pre-filter basket/ })
  const place = before.findIndex((p) => p.name === 'Pre-filter basket') + 1
  await takeUp(moved, new RegExp(`^Pre-filter basket (picked up, )?at place ${place} of `))
  await upToTheTop(page, 'Pre-filter basket')
  await heard(page, 'Space', /^Pre-filter basket let go at place 1 of /)
  await expect(list.first()).toContainText('Pre-filter basket')
  await saved(page)
  const after = await partsOf(page, id)
  expect(after[0]?.name).toBe('Pre-filter basket')
  await expect(row).toContainText(sum(after, 'Pre-filter basket').toFixed(0))

  const grip = await moved.boundingBox()
  const target = await list.nth(2).boundingBox()
  if (!grip || !target) throw new Error('no boxes')
  await page.mouse.move(grip.x + 10, grip.y + 10)
  await page.mouse.down()
  await page.mouse.move(target.x + 20, target.y + target.height / 2, { steps: 12 })
  await page.mouse.move(target.x + 20, target.y + target.height - 4, { steps: 6 })
  await page.mouse.up()
  await expect(list.nth(2)).toContainText('Pre-filter basket')
})

test('photos: several at once, kept while the upload fails, fakes and giants refused with the reason', async ({
  page,
}) => {
  const id = await openDossier(page, 'Terrace 1200', 'strip')
  const jpeg = await sharp({ create: { width: 1200, height: 800, channels: 3, background: '#557755' } })
    .jpeg()
    .toBuffer()
  const add = (files: { name: string; mimeType: string; buffer: Buffer }[]) =>
    page.getByLabel('Add photos').setInputFiles(files)

  // The upload breaks off twice before it goes through.
  let broken = 0
  await page.route('**/photos?*', (route) =>
    broken++ < 2 ? route.abort('connectionreset') : route.continue(),
  )
  await add([
    { name: 'seal.jpg', mimeType: 'image/jpeg', buffer: jpeg },
    { name: 'groove.jpg', mimeType: 'image/jpeg', buffer: jpeg },
  ])
  await expect(page.getByText('kept on this device').first()).toBeVisible()
  await saved(page)
  await expect(page.getByRole('img', { name: 'Photo of the part' })).toHaveCount(2)
  const stored = async () =>
    (
      (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
        photos: { width: number; caption: string }[]
      }
    ).photos
  expect(await stored()).toHaveLength(2)

  await page.getByLabel('Caption').first().fill('the seal, as found')
  await page.keyboard.press('Enter')
  await saved(page)
  expect((await stored()).map((p) => p.caption)).toContain('the seal, as found')

  await add([{ name: 'fake.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') }])
  await expect(page.getByText(/A photo was not taken: a photo such as JPEG/)).toBeVisible()
  await page.getByRole('button', { name: 'Let it go' }).click()
  // A file on the disk that is all hole: its 31 MB need not travel to the browser.
  const giant = test.info().outputPath('giant.jpg')
  writeFileSync(giant, '')
  truncateSync(giant, 31e6)
  await page.getByLabel('Add photos').setInputFiles(giant)
  await expect(page.getByText('giant.jpg has 31 MB; at most 20 MB are taken.')).toBeVisible()
  await saved(page)
  expect(await stored()).toHaveLength(2)
})
