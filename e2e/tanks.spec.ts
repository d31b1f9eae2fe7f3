import { expect, named, openDossier, saved, test, watchErrors } from './helpers'

const WEEK = 7
/** Dentist, front window: 80 × 35 cm, 37 cm of water, 4 cm of gravel of which 60 % are stone, 4 L of rock; in litres. */
const WATER = 8 * 3.5 * 3.7 - 8 * 3.5 * 0.4 * 0.6 - 4

test('one tank: its balance by hand, feed and changes told, what happens in time', async ({ page }) => {
  const errors = watchErrors(page)
  await openDossier(page, 'Terrace 1200', 'tanks')
  await page.getByRole('link', { name: 'Dentist, front window' }).click()
  const balance = page.getByRole('region', { name: 'Water quality at steady state' })
  // 1.4 g · 40 % · 92 mg/g = 51.5 mg a day; before a weekly change of 30 %, less what leaves as ammonia and nitrite.
  const made = 1.4 * 0.4 * 92
  const nitrate = (made * WEEK) / (0.3 * WATER) - 2 * 0.07
  await expect(balance.getByRole('row', { name: /Ammonia made/ })).toContainText('52 ± 8')
  await expect(balance.getByRole('row', { name: /Nitrate/ })).toContainText(nitrate.toFixed(1))
  await expect(balance).toContainText('All values are within limits.')
  await balance.getByRole('button', { name: /^12\.8/ }).click()
  await expect(page.getByRole('dialog')).toContainText('a run of equal changes, in closed form')
  await page.keyboard.press('Escape')

  const time = page.getByRole('region', { name: 'In time' })
  await expect(time).toContainText('Peak nitrite')
  await time.getByLabel('What happens').selectOption('off')
  await expect(time).toContainText('Least oxygen')
  await time.getByLabel('Hours without power').fill('400')
  await page.keyboard.press('Enter')
  await expect(time).toContainText(/Maximum 336 h|between 0.1 h and 336 h/)
  await time.getByLabel('What happens').selectOption('half')
  await expect(time).toContainText(/Safe for full stock.*(throughout|from day)/)

  await page.getByRole('link', { name: 'Change how it is kept' }).click()
  await page.getByLabel('Feed a day').fill('12 g')
  await page.keyboard.press('Enter')
  await page.getByLabel('pH', { exact: true }).fill('12')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Maximum 10\.5/)).toBeVisible()
  await page.getByLabel('pH', { exact: true }).fill('8.4')
  await page.keyboard.press('Enter')
  await saved(page)
  await openDossier(page, 'Terrace 1200', 'tanks')
  await page.getByRole('link', { name: 'Dentist, front window' }).click()
  await expect(balance).toContainText(/(above|below) the limit/)
  // No animals at all: nothing to take up, nothing happens, nothing breaks.
  await page.getByRole('link', { name: 'Change how it is kept' }).click()
  await page.getByLabel('Feed a day').fill('0')
  await page.keyboard.press('Enter')
  await saved(page)
  await openDossier(page, 'Terrace 1200', 'tanks')
  await page.getByRole('link', { name: 'Dentist, front window' }).click()
  await expect(balance).toContainText('No feed, no animals')
  await expect(time).toContainText('No feeding, so nothing to forecast.')
  expect(errors).toEqual([])
})

test('does it fit: a rim filter that meets the wall, by how many millimetres, and an outlet that is gentle', async ({
  page,
}) => {
  await openDossier(page, 'Gale HB', 'tanks')
  await page.getByRole('link', { name: 'Ferry café, counter' }).click()
  const fit = page.getByRole('region', { name: 'Does it fit?' })
  // It stands out 125 mm, and there are 50.
  await expect(fit).toContainText(/Gap to the wall: 75\smm too little\. Needs 125\smm, there is 50\smm/)
  await expect(fit.getByRole('img')).toHaveAccessibleName(/1 thing does not fit/)
  await page.getByRole('combobox', { name: /^Tank/ }).selectOption({ label: 'Ferry café, shrimp' })
  await expect(page.getByRole('region', { name: 'How strong it runs' })).toContainText(
    'turned towards the glass',
  )
  await expect(page.getByRole('region', { name: 'How strong it runs' })).toContainText(
    'Open intake: add a sponge before keeping shrimp or fry',
  )
})

test('the house’s order of schools leads the verdict, and a class of its own judges its tanks', async ({
  page,
}) => {
  await page.goto('/rules')
  await page.getByRole('button', { name: 'Copy as our own' }).click()
  await expect(page.getByLabel('Name')).toHaveValue('Mechanical first, our way')
  await page.getByLabel('Name').fill(named('Balance first'))
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'bioload balance up' }).click()
  await page.getByRole('button', { name: 'Use these rules' }).click()
  await saved(page)
  await openDossier(page, 'Ledger 700', 'verdict')
  const because = page.getByRole('region', { name: 'Three reasons that matter' })
  await expect(because).toContainText('Bioload is the limit')
  await page
    .locator('summary')
    .filter({ hasText: /^Media/ })
    .click()
  await expect(page.getByText(/sizing rules? gives? .*media weight/)).toBeVisible()
  await expect(page.getByText(/Confidence: .* if the rule “bioload balance” is right/)).toBeVisible()
  await page.getByText('Confidence in detail').click()
  const sure = page.getByRole('region', { name: 'Confidence' })
  await expect(sure).toContainText('that the label claims too much, if bioload balance is right')
  await expect(sure).toContainText(/Main uncertainty \(by bioload balance\): .*feed/)
  await page.goto('/rules')
  await page.getByRole('link', { name: /^Mechanical first ships/ }).click()
  await page.getByRole('button', { name: 'Use these rules' }).click()
  await saved(page)

  await page.goto('/stock')
  await page.getByRole('link', { name: /^Heavy/ }).click()
  await expect(page.getByLabel('Name')).toHaveValue(/^Heavy/)
  await page.getByRole('button', { name: 'Copy as our own' }).click()
  await expect(page.getByLabel('Name')).toHaveValue(/our own$/)
  await page.getByLabel('Name').fill(named('Goldfish, fancy'))
  await page.keyboard.press('Enter')
  await page.getByLabel('Litres that 1 kg of good media supports', { exact: true }).fill('40')
  await page.keyboard.press('Enter')
  await page.getByLabel('Recommended minimum turnover', { exact: true }).fill('99')
  await page.keyboard.press('Enter')
  await expect(
    page
      .getByText(/no more than the most they bear/)
      .filter({ visible: true })
      .first(),
  ).toBeVisible()
  await page.getByLabel('Recommended minimum turnover', { exact: true }).fill('5')
  await page.keyboard.press('Enter')
  await saved(page)
  await page.goto('/tanks')
  await page.getByRole('link', { name: /Bench room, goldfish/ }).click()
  await page.getByLabel('Stocking').selectOption({ label: named('Goldfish, fancy') })
  await saved(page)
  await openDossier(page, 'Ledger 700', 'tanks')
  // 1.27 kg carry 51 L of them.
  await expect(page.getByRole('row', { name: /Bench room, goldfish/ })).toContainText(/supports 51 ± 18\sL/)
})
