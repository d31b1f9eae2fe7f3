import { expect, test, named, openDossier, saved } from './helpers'

test('from the usual interior to a measured one, the litres checked by hand', async ({ page }) => {
  const id = crypto.randomUUID()
  await page.request.post('/api/v1/models', {
    headers: { 'idempotency-key': crypto.randomUUID() },
    data: { id, maker: 'Marrowby', name: named('Mop measured'), kind: 'motor-sponge' },
  })
  await page.goto(`/models/${id}/inside`)
  await expect(page.getByText('Inside not measured yet')).toBeVisible()
  await page.getByRole('button', { name: 'Start from a typical layout' }).click()
  await expect(page.getByRole('button', { name: /^Sponge: .*typical size \(assumed\)/ })).toBeVisible()
  await expect(page.getByText(/Typical sizes, not measured: 2 of 2 chambers/)).toBeVisible()

  // Sponge 70 × 70 × 110 mm = 539 mL; pump by water fill 150 mL: 689 mL. Water of the whole: 690 g, 0.14 % apart.
  const sheet = page.getByRole('region', { name: 'Sponge' })
  for (const [label, value] of [
    ['Width, inside', '7 cm'],
    ['Depth, inside', '70'],
    ['Height, inside', '110 mm'],
  ] as const) {
    await sheet.getByLabel(label).fill(value)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('button', { name: /^Sponge: 0\.539 L, mechanical media$/ })).toBeVisible()
  // Selecting in the drawing, by keyboard, moves the sheet too.
  await page.getByRole('button', { name: /^Pump: / }).focus()
  await page.keyboard.press('Enter')
  const pump = page.getByRole('region', { name: 'Pump', exact: true })
  await pump.getByLabel('Shape').selectOption('water-fill')
  await pump.getByLabel('Water it holds').fill('150 mL')
  await page.keyboard.press('Enter')
  await page.getByLabel('Water it holds, by weight').fill('0.69')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/0\.1\s%\sapart, within the 1 % limit/)).toBeVisible()
  await expect(page.getByRole('row', { name: /^mechanical media 0\.539/ })).toContainText('78')
  await expect(page.getByRole('button', { name: /^0\.68\d ± 0\.0\d+/ })).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('button', { name: /^Sponge: 0\.539 L/ })).toBeVisible()
})

test('what cannot be is said at its chamber and field, and nothing typed is lost', async ({ page }) => {
  await openDossier(page, 'Ledger 700', 'inside')
  const misfits = page.getByRole('list', { name: 'What does not fit' })
  await page.getByRole('button', { name: 'Middle tray', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'Middle tray' })

  await sheet.getByLabel('Width, inside').fill('400')
  await page.keyboard.press('Enter')
  await expect(misfits).toContainText('the body is 160 mm wide')
  await expect(page.getByRole('button', { name: /^Middle tray: .*does not fit/ })).toBeVisible()
  await sheet.getByLabel('Width, inside').fill('129')
  await page.keyboard.press('Enter')
  await expect(misfits).toBeHidden()

  await sheet.getByLabel('Fill height').fill('20 cm')
  await page.keyboard.press('Enter')
  await expect(misfits).toContainText('above its rim')
  await sheet.getByLabel('Fill height').fill('')
  await page.keyboard.press('Enter')

  await sheet.getByLabel('Height above the foot').fill('60')
  await page.keyboard.press('Enter')
  await expect(misfits).toContainText('overlaps Lower tray')
  await expect(sheet.getByLabel('Height above the foot')).toHaveValue('60')
  await sheet.getByLabel('Height, inside').fill('high')
  await expect(sheet.getByText('“high” is not a number')).toBeVisible()
  await saved(page)
  await page.reload()
  await page.getByRole('button', { name: 'Middle tray', exact: true }).click()
  await expect(sheet.getByLabel('Height, inside')).toHaveValue('high')
})

test('two windows measure one chamber: the second is told', async ({ context }) => {
  const one = await context.newPage()
  const two = await context.newPage()
  const id = await openDossier(one, 'Undercroft 90', 'inside')
  await two.route('**/changes', (route) => route.abort())
  await two.goto(`/models/${id}/inside`)
  await expect(two.getByLabel('Height, inside')).toBeVisible()
  await one.getByLabel('Height, inside').fill('200')
  await one.keyboard.press('Enter')
  await saved(one)
  await two.getByLabel('Height, inside').fill('190')
  await two.keyboard.press('Enter')
  await expect(two.getByText(/Changed elsewhere to/)).toContainText('200 mm')
  await two.getByRole('button', { name: 'Use their version' }).click()
  await saved(two)
})

test('the drawing stays readable at 320 px and can be saved as a file', async ({ page }) => {
  await page.setViewportSize({ width: 320, height: 700 })
  await openDossier(page, 'Gale HB', 'inside')
  const drawing = page.locator('svg[data-drawing]')
  const box = await drawing.boundingBox()
  expect(box?.width).toBeLessThanOrEqual(320)
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
  ).toBe(0)
  for (const as of ['SVG', 'PNG']) {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: as }).first().click()
    expect((await download).suggestedFilename()).toBe(`gale-hb-section.${as.toLowerCase()}`)
  }
})
