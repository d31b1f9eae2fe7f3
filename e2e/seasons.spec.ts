import { expect, saved, test } from './helpers'

test('a visit on a phone, out of reach midway: nothing is lost, and the forecast takes it in', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/')
  await page
    .getByRole('link', { name: /Mop 300/ })
    .first()
    .click()
  await page.getByRole('link', { name: /^Long-term/ }).click()
  await expect(page.getByText('Clogging forecast')).toBeVisible()
  await page.getByRole('button', { name: 'Start long-term test', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Leave it uncleaned until you have looked' })).toBeVisible()
  const next = page.getByRole('button', { name: /^(Next|Skip)$/ })
  await next.click()
  await page.getByRole('button', { name: 'nowhere' }).click()
  await next.click()
  const time = async (): Promise<void> => {
    await page.getByRole('button', { name: /Start filling/ }).click()
    await page.waitForFunction(() => Number(/(\d+\.\d) ?s/.exec(document.body.innerText)?.[1] ?? 0) >= 0.8)
    await page.getByRole('button', { name: /Full: stop/ }).click()
  }
  await time()
  await expect(page.getByRole('list', { name: 'Runs' }).getByRole('listitem')).toHaveCount(1)
  await saved(page)
  // Down in the cellar: what is tapped from here on waits on the device.
  await page.context().setOffline(true)
  await time()
  for (let i = 0; i < 4; i++) await next.click()
  await expect(page.getByRole('heading', { name: 'Where is the dirt?' })).toBeVisible()
  await page.getByRole('button', { name: 'clean', exact: true }).first().click()
  await expect(page.getByText(/Offline: \d+ changes?/)).toBeVisible()
  for (let i = 0; i < 3; i++) await next.click()
  await page.getByRole('button', { name: /^Nitrogen/ }).click()
  await page.getByLabel('Ammonia, as N').fill('0')
  await page.keyboard.press('Tab')
  await page.context().setOffline(false)
  await saved(page)
  await page.reload()
  // The place is kept, and what was tapped out of reach is there.
  await expect(page.getByRole('heading', { name: 'Test the water' })).toBeVisible()
  await expect(page.getByLabel('Ammonia, as N')).toHaveValue(/^0/)
  await page.getByRole('link', { name: 'Back to Long-term' }).click()
  const visits = page.getByRole('region', { name: /^Check-ups/ })
  await expect(visits.getByText('set up')).toBeVisible()
  await expect(visits).toContainText(/L\/h/)
})

test('the upkeep of a week, done at one place: gone from the list, kept, and a slip is taken back', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Maintenance' }).click()
  await page.getByLabel('Location').selectOption('Island museum')
  const week = page.getByRole('region', { name: 'This week' })
  const done = week.getByRole('button', { name: /^Done:/ })
  await expect(done.first()).toBeVisible()
  await expect(week.getByText('Ferry café, counter')).toHaveCount(0)
  const n = await done.count()
  // Half of it out of reach: ticked all the same, sent once when the server is back.
  await page.context().setOffline(true)
  for (let i = n; i > 0; i--) {
    if (i === Math.ceil(n / 2)) await page.context().setOffline(false)
    await done.first().click()
    await expect(done).toHaveCount(i - 1)
  }
  await expect(week).toContainText('Nothing is due in the next seven days.')
  await saved(page)
  await page.reload()
  await expect(week).toContainText('Nothing is due in the next seven days.')
  const lately = page.getByRole('region', { name: 'Recently done' })
  await lately
    .getByLabel(/^Minutes for/)
    .first()
    .fill('5')
  await page.keyboard.press('Tab')
  await lately
    .getByRole('button', { name: /^Undo:/ })
    .first()
    .click()
  await expect(done).toHaveCount(1)
  await saved(page)
  // The calendar of the place, as other programs read it.
  const file = await page.request.get('/api/v1/upkeep.ics?place=Island%20museum')
  expect(await file.text()).toMatch(/^BEGIN:VCALENDAR[\s\S]*RRULE:FREQ=[\s\S]*END:VCALENDAR/)
})
