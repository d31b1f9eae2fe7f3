import { expect, saved, test } from './helpers'

test('on a phone a stranger gives 120 L, planted, with shrimp, and gets a slip in a few taps', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/')
  await page.getByRole('link', { name: 'Advise' }).click()
  await page.getByRole('button', { name: '120 L' }).click()
  await page.getByRole('button', { name: /^Delicate/ }).click()
  await page.getByRole('button', { name: 'planted', exact: true }).click()
  const will = page.getByRole('region', { name: /that will do$/ })
  const ledger = will
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: /Ledger 700$/ }) })
  // Apart from the app: 1.2 kg of media carry 200 L each of such stock, 240 L, twice 120 L; the rule is ± 20 %.
  await expect(ledger.first()).toContainText(
    /Carries 240 ± 48\sL of such stock by media mass: 2\.0 ± 0\.4 times this tank/,
  )
  await expect(ledger.first()).toContainText('a sponge over its intake')
  // A score comes with its interval, once it is drawn.
  await expect(ledger.first()).toContainText(/score 0\.\d\d to 0\.\d\d · best in/)
  // Taps change the answer; it stands in the address.
  await page.getByRole('button', { name: 'on the rim' }).click()
  await expect(page.getByRole('region', { name: 'Not for this tank' })).toContainText(
    'beside or under the tank, on hoses',
  )
  await page.getByRole('button', { name: 'on the rim' }).click()
  expect(new URL(page.url()).searchParams.get('planted')).toBe('1')
  await ledger.first().getByRole('link', { name: 'Slip for Ledger 700' }).click()
  const slip = page.getByRole('article', { name: 'Slip' })
  await expect(slip).toContainText(/120\sL; delicate \(shrimp, fry, long fins\), planted/)
  await expect(slip).toContainText(/129\.00 EUR in all/)
  await expect(slip).toContainText('Unplug filter and heater before hands go in')
  await expect(slip.getByRole('region', { name: 'Next dates' })).toContainText('open and rinse Ledger 700')
  await page.getByRole('link', { name: 'Back to the counter' }).click()
  await expect(page.getByRole('button', { name: /^Delicate/ })).toHaveAttribute('aria-pressed', 'true')
})

test('a saved tank: what they have, a slip kept with it, and what runs on it worked out together', async ({
  page,
}) => {
  await page.goto('/tanks')
  await page.getByRole('link', { name: /^Vet, quarantine/ }).click()
  const on = page.getByRole('region', { name: 'Filters on it', exact: true })
  await on.getByLabel('Add a filter of the shelf').selectOption({ label: 'Ledger 700, Tarn & Wick' })
  // 1.2 kg carry 120 L normally stocked.
  await expect(on).toContainText(/It carries 120 ± 24\sL of such stock; the tank holds 57.6\sL/)
  await expect(on).toContainText('Nothing runs while it is open')
  await on.getByRole('button', { name: 'One that is not on the shelf' }).click()
  await on.getByLabel('What it is called').fill('Old sponge')
  await page.keyboard.press('Tab')
  await on.getByLabel('Old sponge: kind').selectOption({ label: 'Motor sponge' })
  const rated = on.getByLabel('Old sponge: rated flow')
  await rated.fill('fast')
  await page.keyboard.press('Tab')
  await expect(on.getByRole('alert').first()).toContainText(/flow|number/i)
  await rated.fill('300 L/h')
  await page.keyboard.press('Tab')
  await expect(on).toContainText('Old sponge: by its flow alone no more than')
  await expect(on).toContainText(/With Ledger 700 open, the rest carries what nobody knows/)
  await saved(page)
  await page.getByRole('link', { name: 'Advise for this tank' }).click()
  const have = page.getByRole('region', { name: 'What they have' })
  await expect(have).toContainText(/Keep\s*It carries 120 ± 24\sL/)
  await expect(have).toContainText('Replace')
  await page
    .getByRole('link', { name: /^Slip for/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Keep with the tank' }).click()
  await saved(page)
  await page.goto('/tanks')
  await page.getByRole('link', { name: /^Vet, quarantine/ }).click()
  await expect(page.getByRole('region', { name: 'Visits' })).toContainText(/\d{4}-\d\d-\d\dAdvice: /)
  // Taken off again, the tank is as it was.
  await page.getByRole('button', { name: 'Take Old sponge off' }).click()
  await page.getByRole('button', { name: 'Take Ledger 700 off' }).click()
  await expect(on).toContainText('None noted')
  await saved(page)
})
