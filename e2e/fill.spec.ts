import {
  expect,
  framesOf,
  test,
  type Page,
  heard,
  named,
  openDossier,
  saved,
  startServer,
  stopServer,
  takeUp,
  upToTheTop,
  watchErrors,
} from './helpers'

/** Row of the results: its label, then this fill’s number as text. */
const result = async (page: Page, label: string): Promise<number> => {
  const text = await page
    .getByRole('region', { name: 'Results' })
    .getByRole('row', { name: label })
    .innerText()
  return Number(/(-?[\d.]+)/.exec(text.replace(label, '').replace(/[\u2009\u202f\u00a0]/g, ''))?.[1])
}

/** Takes a layer of the section and holds it over another place, in small steps as a hand does. */
async function drag(page: Page, from: string, to: string, release = true, steps = 40): Promise<void> {
  const a = await page.locator(`svg [data-layer="${from}"]`).boundingBox()
  const b = await page.locator(`svg [data-layer="${to}"]`).boundingBox()
  if (!a || !b) throw new Error('a layer is not drawn')
  const [x0, y0] = [a.x + a.width * 0.7, a.y + a.height / 2]
  const [x1, y1] = [b.x + b.width * 0.7, b.y + 2]
  await page.mouse.move(x0, y0)
  await page.mouse.down()
  for (let i = 1; i <= steps; i++)
    await page.mouse.move(x0 + ((x1 - x0) * i) / steps, y0 + ((y1 - y0) * i) / steps)
  if (release) await page.mouse.up()
}

test('the fine pad dragged below the media: live numbers on the way, the findings and the head by hand after', async ({ page }) => {
  const errors = watchErrors(page)
  const id = await openDossier(page, 'Torrent 1400', 'fill')
  await page.getByRole('button', { name: 'Copy', exact: true }).click()
  await expect(page.getByRole('tab', { name: /Supplied, changed/, selected: true })).toBeVisible()
  await expect(page.getByText(/fine pad sits after the bio media: too late/i)).toBeVisible()
  const before = await result(page, 'Bypasses mechanical filtration')
  expect(before).toBeGreaterThan(50)

  // l5 is the fine pad in the upper tray, l1 the coarse foam at the bottom of the lower one.
  await drag(page, 'l5', 'l1', false)
  await expect(page.getByText(/fine pad sits after the bio media: too late/i)).toBeHidden()
  await page.mouse.up()
  await saved(page)
  await expect(page.getByText(/fine pad sits after the bio media: too late/i)).toBeHidden()
  const list = page.getByRole('region', { name: 'Layers, in flow order' })
  await expect(list.getByRole('listitem').nth(1)).toContainText('Fine pad')
  // The tray now holds 30 mm foam, 20 mm pad, 30 mm rings: above its rim, and said so.
  await expect(page.getByText(/above the rim of lower tray/)).toBeVisible()

  // By hand: fibre 30 µm at 10 % gives k = (30e-6)²/(64 · 0.1^1.5 (1 + 56 · 0.1³)) m², C = 1.75 · 0.1/(0.9³ · 45e-6) 1/m.
  const k = 3e-5 ** 2 / (64 * 0.1 ** 1.5 * (1 + 56 * 0.1 ** 3))
  const c = (1.75 * 0.1) / (0.9 ** 3 * 4.5e-5)
  await list.getByRole('button', { name: /^Fine pad/ }).click()
  const gap = list.getByLabel('Gap at Fine pad')
  await gap.fill('0')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^0\.0\s?%$/ }).first()).toBeVisible()
  const flow = (await result(page, 'Installed flow with this setup')) / 3.6e6
  const dossier = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as { chambers: { name: string; width: number; depth: number }[] }
  const tray = dossier.chambers.find((x) => x.name === 'Lower tray')
  const v = flow / ((tray?.width ?? 0) * (tray?.depth ?? 0))
  const nu = 0.9668e-6 // water at 21.5 °C, Kestin et al.
  const head = (0.02 * ((nu * v) / k + c * v * v)) / 9.80665
  const shown = await list.getByText(/^Weighs/).innerText()
  expect(Number(/Head loss\s([\d.]+)/.exec(shown)?.[1]) / 1000 / head).toBeCloseTo(1, 1)
  expect(errors).toEqual([])
}) // prettier-ignore

test('dragging keeps its frames while the numbers follow', async ({ page }) => {
  await openDossier(page, 'Torrent 1400', 'fill')
  await expect(page.locator('svg [data-layer="l5"]')).toBeVisible()
  // Frames of the page at rest, then of the same page while a layer is dragged: what a busy machine adds is in both.
  const frames = await framesOf(page)
  const rest = await frames(80)
  await drag(page, 'l5', 'l1', false, 80)
  const held = await frames(1)
  await page.keyboard.press('Escape')
  await page.mouse.up()
  test.info().annotations.push({
    type: 'drag',
    description: `${held.count} frames, median ${held.median.toFixed(1)} ms, 95 % under ${held.slow.toFixed(1)} ms; at rest ${rest.median.toFixed(1)} and ${rest.slow.toFixed(1)} ms`,
  })
  // A frame at 60 Hz is 16.7 ms. Alone the slowest twentieth stays under 40 ms; beside two other browsers on two cores
  // it misses a few frames now and then, whoever draws.
  expect(held.median).toBeLessThan(Math.max(18, 1.1 * rest.median))
  expect(held.slow).toBeLessThan(Math.max(100, 2.2 * rest.slow))
})

test('from an empty body to a fitted one: wrong input named, nothing lost, order by keyboard, undo', async ({ page }) => {
  const id = crypto.randomUUID()
  const post = (path: string, data: object) =>
    page.request.post(`/api/v1/${path}`, { headers: { 'idempotency-key': crypto.randomUUID() }, data })
  await post('models', { id, maker: 'Marrowby', name: named('Empty trays'), kind: 'canister' })
  await page.goto(`/models/${id}/fill`)
  await expect(page.getByText('The inside is not measured yet')).toBeVisible()
  await page.getByRole('link', { name: 'Measure the inside first' }).click()
  await page.getByRole('button', { name: 'Start from a typical layout' }).click()
  await saved(page)
  await page.goto(`/models/${id}/path`)
  await expect(page.getByText('Add a media setup first')).toBeVisible()
  await page.goto(`/models/${id}/fill`)
  await page.getByRole('button', { name: 'Add the supplied media' }).click()
  await expect(page.getByText(/add rated flow and maximum head/)).toBeVisible()
  for (const [quantity, value] of [['rated-flow', 1000 / 3.6e6], ['max-head', 1.6]] as const)
    await post('claims', { id: crypto.randomUUID(), modelId: id, quantity, value, mainsFrequency: 50 })
  await page.reload()
  await page.getByLabel('Add a layer to Lower tray').selectOption('Fine pad')
  await page.getByLabel('Add a layer to Lower tray').selectOption('Coarse foam, 10 ppi')
  await page.getByLabel('Add a layer to Middle tray').selectOption('Sintered glass rings')
  const list = page.getByRole('region', { name: 'Layers, in flow order' })
  await expect(list.getByRole('listitem')).toHaveCount(3)
  await expect(page.getByText(/No coarse layer before the fine pad/)).toBeVisible()

  // By keyboard: take the coarse foam, one up, let go.
  const grip = list.getByRole('button', { name: 'Move Coarse foam, 10 ppi', exact: true })
  await takeUp(grip, /^Coarse foam, 10 ppi (picked up, )?at place 2 of 3/)
  await upToTheTop(page, 'Coarse foam, 10 ppi')
  await heard(page, 'Space', /let go at place 1 of 3/)
  await expect(page.getByText(/No coarse layer before the fine pad/)).toBeHidden()
  await expect(list.getByRole('listitem').first()).toContainText('Coarse foam')

  // A gap wider than the tray: refused at the field’s name, the drawing keeps the last state, the number stays.
  const gap = list.getByLabel('Gap at Sintered glass rings')
  await gap.fill('90 mm')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert').filter({ hasText: 'Layer 3, gap' })).toContainText('a wider gap leaves nothing of')
  await expect(list.getByText('Sintered glass rings: these values do not fit')).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(gap).toHaveValue('90 mm')
  await gap.fill('wide')
  await page.keyboard.press('Enter')
  await expect(list.getByRole('alert')).toBeVisible()
  await gap.fill('5')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/bypasses the sintered glass rings through a 5\smm gap/).first()).toBeVisible()

  await expect(list.getByRole('alert')).toBeHidden()
  await list.getByRole('button', { name: 'Remove Fine pad' }).click()
  await expect(list.getByRole('listitem')).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(list.getByRole('listitem')).toHaveCount(3)

  await page.getByRole('button', { name: 'Fit it', exact: true }).click()
  await expect(page.getByText(/combinations tried\. The best supports/)).toBeVisible({ timeout: 30000 })
  await page.getByRole('button', { name: 'Save as a variant' }).click()
  await expect(page.getByRole('tab', { name: /Best setup: Mechanical first/, selected: true })).toBeVisible()
  await expect(page.getByText(/No fine layer before/)).toBeHidden()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('tab')).toHaveCount(2)
}) // prettier-ignore

test('Path: a clogged cartridge spills, the schools differ, the circuit travels as an EPANET file and back', async ({ page }) => {
  const errors = watchErrors(page)
  await openDossier(page, 'Gale HB', 'path')
  await page.getByLabel('Media setup', { exact: true }).selectOption('Cartridge after four weeks')
  await expect(page.getByText(/of the water spills over the cartridge unfiltered/)).toBeVisible()
  await page.getByLabel('House rules for this review').selectOption('Fine pad last')
  await expect(page.getByText(/The last layer is /)).toBeVisible()
  await page.getByRole('button', { name: 'Compare them' }).click()
  const schools = page.getByRole('region', { name: 'Three layering rules compared' })
  await expect(schools.getByRole('row')).toHaveCount(4, { timeout: 30000 })

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'EPANET file (.inp)' }).click()
  const path = await (await download).path()
  await page.getByLabel('An EPANET file exported from here').setInputFiles(path)
  await expect(page.getByRole('table', { name: /solved again/ }).getByRole('row', { name: /House cartridge/ })).toBeVisible()
  await page.getByLabel('An EPANET file exported from here').setInputFiles({ name: 'other.inp', mimeType: 'text/plain', buffer: Buffer.from('[TITLE]\nanother') })
  await expect(page.getByText('a file exported from here')).toBeVisible()

  await page.getByLabel('An inline heater').check()
  await expect(page.getByText(/Unplug the heater first/)).toBeVisible()
  await page.getByLabel('A UV-C lamp').check()
  await expect(page.getByText(/NSF\/ANSI 55/)).toBeVisible()
  await page.getByLabel('Second filter on the same hoses').check()
  await page.getByLabel('How the second filter is joined').selectOption('beside')
  await page.getByLabel('running').uncheck()
  await expect(page.getByText(/run back round the loop/)).toBeVisible()
  await saved(page)
  expect(errors).toEqual([])
}) // prettier-ignore

test('a pad calibrated from two runs predicts the third within its interval', async ({ page }) => {
  await openDossier(page, 'Triptych 600', 'path')
  const region = page.getByRole('region', { name: 'Calculated vs measured' })
  await expect(region.getByRole('row')).toHaveCount(4)
  await page.getByRole('button', { name: 'Solve its permeability' }).click()
  await expect(region.getByText(/the model says/)).toBeVisible()
  await page.getByRole('button', { name: 'Keep it in the library' }).click()
  await saved(page)
  await expect(page.getByRole('region', { name: 'Layer by layer' })).toContainText('calibrated on Triptych 600')
  await expect(region.getByRole('row', { name: /Supplied at 0\.2/ })).toContainText('agrees within both intervals')
  await page.goto('/library')
  await page.getByRole('link', { name: /Fine pad, calibrated on Triptych 600/ }).click()
  await expect(page.getByText('measured', { exact: true }).first()).toBeVisible()
}) // prettier-ignore

test('an own medium and an own house rule: contradictions said, prices with their day', async ({ page }) => {
  await page.goto('/library')
  await page.getByRole('button', { name: 'Add a medium' }).click()
  await expect(page.getByText('Unknown: enter grain and voidage')).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill(named('Crushed lava'))
  await page.getByLabel('Grain').fill('6')
  await page.keyboard.press('Enter')
  await page.getByLabel('Voidage').fill('150 %')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Maximum \d+/)).toBeVisible()
  await page.getByLabel('Voidage').fill('48')
  await page.keyboard.press('Enter')
  // Ergun by hand: 0.48³ · 0.006² / (150 · 0.52²) = 9.8e-8 m².
  await expect(page.getByRole('button', { name: /^98 ± 59/ })).toBeVisible()
  await page.getByLabel('Price of a pack').fill('7,50 EUR')
  await page.keyboard.press('Enter')
  await page.getByLabel('Price noted on').fill('2026-11-20')
  await saved(page)

  await page.goto('/rules')
  await page.getByRole('button', { name: 'Copy as our own' }).click()
  await page.getByLabel('A fine pad as the last layer', { exact: true }).check()
  await expect(page.getByText(/cannot both be kept/)).toBeVisible()
  await page.getByRole('button', { name: 'Use these rules' }).click()
  await saved(page)
  await openDossier(page, 'Ledger 700', 'path')
  await expect(page.getByText(/The house rules contradict each other/)).toBeVisible()
  await page.goto('/rules')
  await page.getByRole('link', { name: /^Mechanical first ships/ }).click()
  await page.getByRole('button', { name: 'Use these rules' }).click()
  await saved(page)
})

test('two windows on one fill: the second is told of the first, and may keep its own', async ({ page, context }) => {
  const id = await openDossier(page, 'Mop 300', 'fill')
  const other = await context.newPage()
  // The second window must not hear of the change before it makes its own.
  await other.route('**/changes', (route) => route.abort())
  await other.goto(`/models/${id}/fill`)
  const list = (p: Page) => p.getByRole('region', { name: 'Layers, in flow order' })
  await expect(list(other).getByRole('listitem')).toHaveCount(1)
  await expect(list(page).getByRole('listitem')).toHaveCount(1)
  await list(page).getByRole('button', { name: /^Medium foam/ }).click()
  const gap = list(page).getByLabel('Amount of Medium foam, 20 ppi')
  await gap.fill('20 mm')
  await page.keyboard.press('Enter')
  await saved(page)
  await list(other).getByRole('button', { name: /^Medium foam/ }).click()
  await list(other).getByLabel('Amount of Medium foam, 20 ppi').fill('15 mm')
  await other.keyboard.press('Enter')
  await expect(other.getByText('The layers of this setup changed elsewhere meanwhile.')).toBeVisible()
  await other.getByRole('button', { name: 'Keep my version' }).click()
  await saved(other)
  await page.reload()
  await list(page).getByRole('button', { name: /^Medium foam/ }).click()
  await expect(list(page).getByLabel('Amount of Medium foam, 20 ppi')).toHaveValue('15 mm')
}) // prettier-ignore

test('the server killed while a layer is laid in: kept on this device, sent once when it is back', async ({ page }) => {
  await openDossier(page, 'Coracle A1', 'fill')
  const list = page.getByRole('region', { name: 'Layers, in flow order' })
  await expect(list.getByRole('listitem')).toHaveCount(2)
  await stopServer()
  await page.getByLabel('Add a layer to Gravel').selectOption('Coarse foam, 10 ppi')
  await expect(list.getByRole('listitem')).toHaveCount(3)
  await expect(page.getByRole('status').filter({ hasText: /Offline/ })).toBeVisible()
  // The numbers go on without the server: the worker has all it needs.
  await expect(page.getByText(/above the rim of gravel/)).toBeVisible()
  await startServer()
  await saved(page)
  await page.reload()
  await expect(list.getByRole('listitem')).toHaveCount(3)
}) // prettier-ignore
