import { clockShows, expect, test, openDossier, saved, startServer, stopServer } from './helpers'

test.use({ serviceWorkers: 'allow', ahead: true })

test('with the server gone the bench opens again from the device, times runs, and hands them in once', async ({
  page,
}) => {
  const id = await openDossier(page, 'Mop 300', 'bench')
  await page.evaluate(async () => void (await navigator.serviceWorker.ready))
  // Read once under the service worker, so that the device has a copy: a page loaded while it is active is under it.
  await page.reload()
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true)
  await page
    .getByRole('row', { name: /timed vessel.*Supplied/ })
    .getByRole('link', { name: 'Bench', exact: true })
    .click()
  const laps = page.getByRole('list', { name: 'Runs, newest first' }).getByRole('listitem')
  await expect(laps).toHaveCount(5)
  await stopServer()

  await page.reload()
  await expect(laps).toHaveCount(5)
  await page.keyboard.press('Space')
  await clockShows(page, 0.6)
  await page.keyboard.press('Space')
  await expect(laps).toHaveCount(6)
  await expect(page.getByText(/Offline: 1 change/)).toBeVisible()
  // Closed and opened once more, still without a server: the run is there.
  await page.reload()
  await expect(laps).toHaveCount(6)
  await page.goto(`/models/${id}/claims`)
  await expect(page.getByLabel('Rated flow', { exact: true })).toHaveValue('300 L/h')

  await startServer()
  await saved(page)
  const { readings } = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
    readings: { id: string }[]
  }
  expect(readings).toHaveLength(new Set(readings.map((r) => r.id)).size)
  await page.goto(`/models/${id}/bench`)
  await expect(page.getByRole('row', { name: /timed vessel.*Supplied/ })).toContainText('6')
})
