import { clockShows, expect, test, named, openDossier, saved, startServer, stopServer } from './helpers'

test.describe('wrong input says what is wrong, at the field, and loses nothing', () => {
  test('letters, negatives, two readings and a 40 000 L/h nano filter', async ({ page }) => {
    await openDossier(page, 'Mop 300')
    const flow = page.getByLabel('Rated flow', { exact: true })
    await flow.fill('fast')
    await expect(page.getByText('“fast” is not a number')).toBeVisible()
    await flow.fill('1,200 L/h')
    await expect(page.getByText('Type 1200 or 1.200')).toBeVisible()
    await flow.fill('-5')
    await expect(page.getByText(/^Minimum /)).toBeVisible()
    await flow.fill('40000 L/h')
    await expect(page.getByText(/Check the unit: 40.000 L\/h is above the usual/)).toBeVisible()
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect(flow).toHaveValue('300 L/h')
    // What cannot be read yet survives a closed page.
    await flow.fill('three or so')
    await page.reload()
    await expect(page.getByLabel('Rated flow', { exact: true })).toHaveValue('three or so')
    await page.getByLabel('Rated flow', { exact: true }).fill('300 L/h')
  })

  test('a tank smaller than its substrate', async ({ page }) => {
    await page.goto('/tanks')
    const tank = page.getByRole('link', { name: /Vet, quarantine/ })
    await tank.click()
    // Until it is open, the first tank is.
    await expect(tank).toHaveAttribute('aria-current', 'page')
    await page.getByLabel('Substrate depth').fill('60 cm')
    await expect(page.getByText('As deep as the water: it must be less than the water level.')).toBeVisible()
    await expect(page.getByLabel('Substrate depth')).toHaveValue('60 cm')
    await page.getByLabel('Substrate depth').fill('0 cm')
  })

  test('a run of no time is not kept, and an undone run comes back', async ({ page }) => {
    await openDossier(page, 'Ledger 700', 'bench')
    await page
      .getByRole('row', { name: /timed vessel.*Supplied/ })
      .getByRole('link', { name: 'Bench', exact: true })
      .click()
    const laps = page.getByRole('list', { name: 'Runs, newest first' }).getByRole('listitem')
    await expect(laps).toHaveCount(5)
    // Both with the times they were pressed at, 0.3 s apart, however long the page takes over the first.
    const keyboard = await page.context().newCDPSession(page)
    const now = Date.now() / 1000
    for (const timestamp of [now - 0.4, now - 0.1])
      for (const type of ['keyDown', 'keyUp'] as const)
        await keyboard.send('Input.dispatchKeyEvent', { type, timestamp, key: ' ', code: 'Space' })
    await expect(page.getByText(/Ignored: 0\.30 s is too short/)).toBeVisible()
    await expect(laps).toHaveCount(5)
    await page.keyboard.press('Backspace')
    await expect(laps).toHaveCount(4)
    await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
    await expect(laps).toHaveCount(5)
  })

  test('one lift fits no curve, and the bench says so', async ({ page }) => {
    await page.goto('/')
    await page.getByRole('button', { name: 'New model' }).click()
    const label = page.getByRole('dialog')
    await label.getByLabel('Maker').fill('Quillon')
    await label.getByLabel('Model', { exact: true }).fill(named('Onepoint'))
    await label.getByLabel('Rated flow').fill('500')
    await label.getByLabel('Maximum head').fill('1 m')
    await page.getByRole('button', { name: 'Add filter' }).click()
    await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /Bench/ }).click()
    await expect(page.getByText(/flow at three heights or more/)).toBeVisible()
    await page.getByRole('button', { name: 'Add plumbing' }).click()
    await expect(page.getByText('Does cabinet height cost flow?')).toBeVisible()
    await expect(page.getByText('What would raise the flow')).toBeVisible()
  })
})

test('two windows on one dossier: both are told, nothing is overwritten', async ({ context }) => {
  const one = await context.newPage()
  const two = await context.newPage()
  const id = await openDossier(one, 'Triptych 600')
  await two.route('**/changes', (route) => route.abort())
  await two.goto(`/models/${id}/claims`)
  await expect(two.getByLabel('Note').first()).toBeVisible()
  await one.getByLabel('Note').first().fill('from the first window')
  await saved(one)
  await two.getByLabel('Note').first().fill('from the second window')
  await expect(two.getByText(/Changed elsewhere to/)).toContainText('from the first window')
  await expect(two.getByText('Conflict: choose a version', { exact: true })).toBeVisible()
  await expect(two.getByText('One entry is kept on this device')).toBeVisible()
  await two.getByRole('main').getByRole('button', { name: 'Keep my version' }).click()
  await saved(two)
  await one.reload()
  await expect(one.getByLabel('Note').first()).toHaveValue('from the second window')
})

test('what one window writes shows in the other without asking', async ({ context }) => {
  const one = await context.newPage()
  const two = await context.newPage()
  const told = two.waitForResponse('**/changes')
  const id = await openDossier(two, 'Coracle A1')
  await told
  await one.goto(`/models/${id}/claims`)
  await one.getByLabel('Note').first().fill('told of at once')
  await expect(two.getByLabel('Note').first()).toHaveValue('told of at once')
})

test('changes to different fields in two windows are both kept without asking', async ({ context }) => {
  const one = await context.newPage()
  const two = await context.newPage()
  const id = await openDossier(one, 'Coracle A1')
  await two.route('**/changes', (route) => route.abort())
  await two.goto(`/models/${id}/claims`)
  await expect(two.getByLabel('Note').first()).toBeVisible()
  await one.getByLabel('Note').first().fill('noted in one')
  await saved(one)
  const sent = two.waitForResponse((r) => r.request().method() === 'PATCH')
  await two.getByLabel('Supply frequency', { exact: true }).selectOption('60')
  await sent
  await saved(two)
  await two.reload()
  await expect(two.getByLabel('Note').first()).toHaveValue('noted in one')
  await expect(two.getByLabel('Supply frequency', { exact: true })).toHaveValue('60')
})

test('the server stops while someone types and times; all of it arrives when it is back, once', async ({
  page,
}) => {
  // The way back to the claims is gone once before: no script is asked of a server that is away.
  const id = await openDossier(page, 'Whirlpot F1')
  const stations = page.getByRole('navigation', { name: 'Stations' })
  await stations.getByRole('link', { name: /Bench/ }).click()
  await page.getByRole('button', { name: 'Time the flow' }).click()
  await page.getByRole('button', { name: 'Start timing' }).click()
  await saved(page)
  await stopServer()
  const laps = page.getByRole('list', { name: 'Runs, newest first' }).getByRole('listitem')
  for (let i = 1; i <= 2; i++) {
    await page.keyboard.press('Space')
    await clockShows(page, 0.6)
    await page.keyboard.press('Space')
    await expect(laps).toHaveCount(i)
  }
  await expect(page.getByText(/Offline: 2 changes/)).toBeVisible()
  await page.getByRole('link', { name: 'Back to Bench' }).click()
  await stations.getByRole('link', { name: /Claims/ }).click()
  await page.getByLabel('Note').first().fill('typed while the server was away')
  await expect(page.getByText(/Offline: \d+ changes?/)).toBeVisible()
  await startServer()
  await saved(page)
  await page.reload()
  await expect(page.getByLabel('Note').first()).toHaveValue('typed while the server was away')
  const dossier = (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
    trials: { id: string }[]
    readings: { trialId: string }[]
  }
  const newest = dossier.trials.at(-1)?.id
  expect(dossier.readings.filter((r) => r.trialId === newest)).toHaveLength(2)
})
