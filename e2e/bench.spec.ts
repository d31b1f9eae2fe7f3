import {
  clockShows,
  expect,
  framesOf,
  test,
  type Page,
  named,
  openDossier,
  rig,
  rigStart,
  rigStop,
  saved,
  startServer,
  stopServer,
  watchErrors,
} from './helpers'

const trialsOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/v1/models/${id}/dossier`)).json()) as {
    trials: { id: string; kind: string; lift: number; outReason: string | null; state: string }[]
    readings: { id: string; trialId: string; kind: string; value: number; seconds: number; source: string }[]
    logs: { id: string; n: number; mean: number; trialId: string }[]
  }

/** Waits for two looks at the instruments from now on; gives when the second was taken. */
async function lookedAgain(page: Page): Promise<string> {
  const { body } = await fetch(new URL('/api/v1/instruments/stream', page.url()))
  const reader = body?.pipeThrough(new TextDecoderStream()).getReader()
  // What the stream says first is the look before.
  let text = ''
  while (text.split('data: ').length <= 3 || !text.endsWith('\n\n'))
    text += (await reader?.read())?.value ?? ''
  await reader?.cancel()
  return /.*"at":"([^"]+)"/s.exec(text)?.[1] ?? ''
}
/** Waits until the screen shows what the instruments say from now on, however busy the page is. */
async function shownAgain(page: Page): Promise<void> {
  const strip = page.getByRole('region', { name: 'Instruments' })
  const at = await lookedAgain(page)
  await expect.poll(async () => ((await strip.getAttribute('data-at')) ?? '') >= at).toBe(true)
}

/** Lets time pass at once, for the simulated bench and for the page. */
async function letPass(page: Page, seconds: number): Promise<void> {
  await rig(`RIG:WAIT ${seconds}`)
  await page.clock.fastForward(seconds * 1000)
}

/** Makes a model from a label, with what the rig knows of it hidden. */
async function newModel(page: Page, wanted: string, flow: string, head: string): Promise<string> {
  const name = named(wanted)
  await page.goto('/')
  await page.getByRole('button', { name: 'New model' }).click()
  const label = page.getByRole('dialog')
  await label.getByLabel('Maker').fill('Tarn & Wick')
  await label.getByLabel('Model', { exact: true }).fill(name)
  await label.getByLabel('Rated flow').fill(flow)
  await label.getByLabel('Maximum head').fill(head)
  await page.getByRole('button', { name: 'Add filter' }).click()
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
  // Shown before it is written: a page loaded in between puts itself up anew once it is.
  await saved(page)
  return /models\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? ''
}

async function start(page: Page, id: string, kind: string): Promise<void> {
  await page.goto(`/models/${id}/bench`)
  await page.getByLabel('Other test').selectOption({ label: kind })
  await page.getByRole('button', { name: /Start timing|To the readings/ }).click()
}

test.afterEach(async () => {
  await rig('RIG:RUN ON;RIG:MET 1;RIG:LIFT 0;RIG:HOS OFF;RIG:STAT EMPTY;RIG:VALV 1')
  for (const s of ['FLOW', 'MASS', 'POWER', 'SOUND', 'TEMP']) await rig(`RIG:FAUL ${s},OK`)
})

test('from the simulated bench: flow by meter at five lifts, watts and noise in one sitting, and the curve holds the hidden pump', async ({
  page,
}) => {
  test.setTimeout(120000)
  const errors = watchErrors(page)
  await page.clock.install()
  const id = await newModel(page, 'Sitting 700', '700 L/h', '1.5 m')
  await rig('RIG:MOD "Ledger 700"')
  await start(page, id, 'Flow, by meter')
  // The hidden pump: 692 L/h, 1.47 m, exponent 1.8 (the demo’s truth).
  for (const [i, lift] of [0, 0.3, 0.6, 0.9, 1.2].entries()) {
    await rig(`RIG:LIFT ${lift}`)
    if (i > 0) await page.getByRole('button', { name: /Raise by/ }).click()
    if (i > 0) await page.getByRole('button', { name: 'Start timing' }).click()
    await expect(page.getByText(/Outlet at/)).toContainText(lift === 0 ? '0' : String(lift))
    for (let run = 0; run < 2; run++) {
      await shownAgain(page)
      await page.keyboard.press('Space')
      await letPass(page, 60)
      await shownAgain(page)
      await page.keyboard.press('Space')
      await page.getByRole('button', { name: /Use \d+ pulses from the meter/ }).click()
      await expect(page.getByRole('list', { name: 'Runs, newest first' }).getByRole('listitem')).toHaveCount(
        run + 1,
      )
    }
  }
  await saved(page)
  const { trials, readings } = await trialsOf(page, id)
  expect(trials.map((t) => t.lift)).toEqual([0, 0.3, 0.6, 0.9, 1.2])
  expect(readings).toHaveLength(10)
  expect(readings.every((r) => r.source.includes('Simulated bench'))).toBe(true)

  await rig('RIG:LIFT 0')
  await start(page, id, 'Power')
  await expect(page.getByRole('region', { name: 'Instruments' })).toContainText(/Power\s*\d+\.?\d*\sW/)
  for (let i = 0; i < 3; i++) {
    await page.getByRole('button', { name: 'Take this reading' }).click()
    await shownAgain(page)
  }
  await expect(page.getByRole('status', { name: 'Result' })).toContainText(/\d ± .*W/)
  await start(page, id, 'Noise')
  await expect(page.getByRole('button', { name: 'Take this reading' })).toBeEnabled()
  await page.getByRole('button', { name: 'Take this reading' }).click()
  const level = async (): Promise<number> =>
    Number(
      /Sound level\s*([\d.]+)/.exec(
        (await page.getByRole('region', { name: 'Instruments' }).textContent()) ?? '',
      )?.[1],
    )
  const before = await level()
  await page.getByRole('button', { name: 'Without it' }).click()
  await page.getByRole('button', { name: 'Switch it off' }).click()
  await expect.poll(level).toBeLessThan(before - 5)
  await page.keyboard.press('Space')
  await expect(page.getByRole('status', { name: 'Result' })).toContainText('background subtracted')
  await saved(page)

  await page.goto(`/models/${id}/bench`)
  await expect(page.getByText(/Pump curve from 5 points/)).toBeVisible()
  const text = (await page.getByText(/Pump curve from 5 points/).textContent()) ?? ''
  const [, h0, uh0] = /([\d.]+) ± ([\d.]+)\sm/.exec(text) ?? []
  const [, q0, uq0] = /([\d.]+) ± ([\d.]+)\sL\/h/.exec(text) ?? []
  const [, n, un] = /exponent ([\d.]+) ± (\d+\.?\d*)/.exec(text) ?? []
  // Independent 95 % intervals: each of three is held to half as much again, so that one sitting in some hundreds fails.
  expect(Math.abs(Number(h0) - 1.47)).toBeLessThan(1.5 * Number(uh0))
  expect(Math.abs(Number(q0) - 692)).toBeLessThan(1.5 * Number(uq0))
  expect(Math.abs(Number(n) - 1.8)).toBeLessThan(1.5 * Number(un))
  expect(errors).toEqual([])
})

test('a sensor that is stuck, unplugged or silent, and a dead bench, are said as faults and never shown as numbers', async ({
  page,
}) => {
  test.setTimeout(120000)
  const id = await newModel(page, 'Faulty 500', '500 L/h', '1 m')
  await start(page, id, 'Power')
  const strip = page.getByRole('region', { name: 'Instruments' })
  await expect(strip).toContainText(/Power\s*\d/)
  await rig('RIG:FAUL POWER,STUCK')
  await expect(strip).toContainText('stuck: shows the same again and again', { timeout: 15000 })
  await expect(page.getByRole('button', { name: 'Take this reading' })).toBeDisabled()
  await rig('RIG:FAUL POWER,DISC')
  await expect(strip).toContainText('not connected')
  await rig('RIG:FAUL POWER,OK')
  await expect(strip).toContainText(/Power\s*\d/)
  // A log over a fault keeps what it had, and says how many looks had no value.
  await page.getByRole('button', { name: 'Log for 60 s' }).click()
  await lookedAgain(page)
  await lookedAgain(page)
  await rig('RIG:FAUL POWER,DISC')
  await lookedAgain(page)
  await page.getByRole('button', { name: 'End log' }).click()
  await expect(page.getByText(/points kept, \d+ looks had no value/)).toBeVisible()
  await rig('RIG:FAUL POWER,OK')
  await rigStop()
  await expect(page.getByText(/No instrument answers at 127\.0\.0\.1/)).toBeVisible({ timeout: 15000 })
  await page.getByLabel('Watts, W').fill('7,5')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status', { name: 'Result' })).toContainText('7.50')
  await rigStart()
  await expect(strip).toContainText(/Power\s*\d/, { timeout: 20000 })
  await saved(page)
  const { logs } = await trialsOf(page, id)
  expect(logs).toHaveLength(1)
  expect(logs[0]?.n).toBeGreaterThan(2)
})

test('a meter with the wrong factor: the check says by how much, and the flows are held against the vessel’s', async ({
  page,
}) => {
  const id = await newModel(page, 'Wrongmeter 600', '600 L/h', '1 m')
  await page.goto(`/models/${id}/bench`)
  // 4500 pulses a litre is in use; the meter truly gives 4725.
  await start(page, id, 'Check of the meter')
  for (const pulses of ['23600', '23650', '23625']) {
    await page.getByLabel(/Pulses counted over the vessel’s 5 L/).fill(pulses)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText(/Wrong meter factor/)).toContainText(/4\.8\s% too low, so its flows read high/)
  await start(page, id, 'Flow, read off')
  await page.getByLabel('Flow, L/h').fill('630')
  await page.keyboard.press('Enter')
  await saved(page)
  await page.goto(`/models/${id}/bench`)
  await page.getByRole('button', { name: 'Time the flow' }).click()
  await page.getByRole('button', { name: 'Start timing' }).click()
  await saved(page)
  const trial = (await trialsOf(page, id)).trials.find((t) => t.kind === 'vessel')
  for (const seconds of [30.1, 29.9, 30, 30.05, 29.95])
    await page.request.post('/api/v1/readings', {
      headers: { 'idempotency-key': crypto.randomUUID() },
      data: {
        id: crypto.randomUUID(),
        trialId: trial?.id,
        kind: 'vessel',
        takenAt: new Date().toISOString(),
        volume: 0.0045,
        seconds,
      },
    })
  await page.goto(`/models/${id}/bench`)
  await expect(page.getByText(/disagree under the same conditions/)).toContainText(
    'Check the meter factor first',
  )
})

test('a semicolon file with decimal commas and three bad rows: each is named by its line, nothing is taken until it is whole', async ({
  page,
}) => {
  const id = await newModel(page, 'Spreadsheet 400', '400 L/h', '1 m')
  await page.goto(`/models/${id}/bench`)
  await page.getByRole('button', { name: 'Paste or import' }).click()
  const dialog = page.getByRole('dialog')
  const rows = dialog.getByLabel('Rows, as copied from a spreadsheet or a file')
  await rows.fill('Volumen [L];Zeit [s]\n5,0;45,2\n5,0;viel\n5,0;44,9\n;45,1\n5,0;0,1\n5,0;45,3')
  await expect(dialog).toContainText('Separated by semicolon, decimal comma, 6 rows under a header')
  for (const said of [
    'Line 3, Zeit [s]: “viel” is no number',
    'Line 5, Volumen [L]: is empty',
    'Line 6, Zeit [s]: 0,1 s is out of range',
  ])
    await expect(dialog).toContainText(said)
  await expect(dialog.getByRole('button', { name: 'Import', exact: true })).toBeDisabled()
  expect((await trialsOf(page, id)).readings).toEqual([])
  await rows.fill('Volumen [L];Zeit [s]\n5,0;45,2\n5,0;45,0\n5,0;44,9\n5,0;45,1\n5,0;45,3')
  // The server goes away at the worst moment: nothing is half-imported, and the text stays.
  await stopServer()
  await dialog.getByRole('button', { name: 'Import 5 rows' }).click()
  await expect(dialog).toContainText('The server cannot be reached, so nothing was imported')
  await startServer()
  await dialog.getByRole('button', { name: 'Import 5 rows' }).click()
  await expect(dialog).toBeHidden()
  // 5 L in 45.1 s on average: 399.1 L/h (by hand).
  await expect(page.getByRole('row', { name: /timed vessel/ })).toContainText(/399 ±/)
  expect((await trialsOf(page, id)).readings).toHaveLength(5)
})

test('a dye file with gaps, a curve that rises, and a log of ten thousand points', async ({ page }) => {
  test.setTimeout(120000)
  const id = await newModel(page, 'Tracer 800', '800 L/h', '1.2 m')
  const paste = async (kind: string, text: string): Promise<void> => {
    await page.goto(`/models/${id}/bench`)
    await page.getByRole('button', { name: 'Paste or import' }).click()
    await page.getByRole('dialog').getByLabel('What it is').selectOption({ label: kind })
    await page
      .getByRole('dialog')
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'rows.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Import \d+ rows/ })
      .click()
    await expect(page.getByRole('dialog')).toBeHidden({ timeout: 15000 })
  }
  // Levenspiel’s pulse in minutes, with two cells missing at one point.
  await paste(
    'Dye against time, a column a point',
    'time [min],outlet,corner\n0,0,0\n5,3,1\n10,5,2\n15,5,\n20,4,3\n25,2,2\n30,1,\n35,0,0',
  )
  await page.getByRole('row', { name: /^dye/ }).getByRole('link', { name: 'dye' }).click()
  await expect(page.getByText(/^Outlet: the dye stays/)).toContainText(/900 (±|s).* on average/)
  await expect(page.getByRole('group', { name: /Strength of dye against time/ })).toBeVisible()

  await paste('Points of a head–flow curve', 'head (m);flow (L/h)\n0;500\n0,4;600\n0,8;700')
  await expect(
    page.getByText(/this series rises, so a column or a media setup may be mixed up/),
  ).toBeVisible()

  const watts = Array.from({ length: 10000 }, (_, i) => `${i},${(14 + Math.sin(i / 50)).toFixed(3)}`)
  await paste('A log of watts', `s,W\n${watts.join('\n')}`)
  await page
    .getByRole('row', { name: /^watts/ })
    .getByRole('link', { name: 'watts' })
    .click()
  await expect(page.getByText(/Log of 10000 points/)).toBeVisible()
  await expect(page.getByRole('group', { name: /Watts against time/ })).toBeVisible()
  // Moving over the drawing keeps the page's frames: what a busy machine adds is in those of the page at rest as well.
  const box = await page.getByRole('group', { name: /Watts against time/ }).boundingBox()
  if (!box) throw new Error('no chart')
  const frames = await framesOf(page)
  const rest = await frames(60)
  for (let i = 0; i < 30; i++) await page.mouse.move(box.x + 70 + i * 10, box.y + 100)
  const moved = await frames(20)
  expect(moved.median).toBeLessThan(Math.max(34, 2.2 * rest.median))
  expect(moved.slow).toBeLessThan(Math.max(120, 3 * rest.slow))
})

test('the server killed and the network cut in the middle of a run: nothing lost, nothing twice, order kept', async ({
  page,
}) => {
  const id = await newModel(page, 'Cutoff 300', '300 L/h', '0.6 m')
  await start(page, id, 'Cups and clips')
  const list = page.getByRole('list', { name: 'Readings, newest first' }).getByRole('listitem')
  await page.keyboard.press('Space')
  await clockShows(page, 0.3)
  await stopServer()
  await page.keyboard.press('Space')
  await expect(list).toHaveCount(1)
  await page.context().setOffline(true)
  await page.keyboard.press('Space')
  await clockShows(page, 0.3)
  await page.keyboard.press('s')
  await expect(list).toHaveCount(2)
  await expect(page.getByText(/1 of 2 still held/)).toHaveCount(0)
  await expect(page.getByText(/Offline: 2 changes/)).toBeVisible()
  await page.context().setOffline(false)
  await startServer()
  await saved(page)
  const { readings } = await trialsOf(page, id)
  expect(readings).toHaveLength(2)
  expect(readings[0]?.seconds).toBeLessThan(5)
  await expect(list).toHaveCount(2)
})

test('a point is dragged out of the fit with a reason, kept in the record, and put back', async ({
  page,
}) => {
  const id = await openDossier(page, 'Ledger 700', 'bench')
  const point = page.getByRole('button', { name: /Point at .*: in the fit; remove it/ }).nth(2)
  await saved(page)
  // Waits until the point stands still and nothing lies over it.
  await point.hover()
  const box = await point.boundingBox()
  if (!box) throw new Error('no point')
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y - 50, { steps: 5 })
  await page.mouse.up()
  const why = page.getByLabel('Why is it excluded?')
  await page.getByRole('button', { name: 'Exclude', exact: true }).click()
  await expect(page.getByText('A reason is needed: it stays in the record.')).toBeVisible()
  await why.fill('hose kinked')
  await page.keyboard.press('Enter')
  await expect(page.getByText('out: hose kinked')).toBeVisible()
  await saved(page)
  expect((await trialsOf(page, id)).trials.filter((t) => t.outReason === 'hose kinked')).toHaveLength(1)
  await page.getByRole('button', { name: 'Include again' }).click()
  await saved(page)
  expect((await trialsOf(page, id)).trials.every((t) => t.outReason === null)).toBe(true)
})

test('dye by keys, priming and cups on a phone: large targets, keys that do not fire while typing', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await newModel(page, 'Pocket 200', '200 L/h', '0.5 m')
  await start(page, id, 'Dye')
  await page.keyboard.press('Space')
  for (const [i, key] of ['0', '2', '5', '7', '8', '8'].entries()) {
    await clockShows(page, 0.2 * (i + 1))
    await page.keyboard.press(key)
  }
  await page.getByRole('button', { name: '10', exact: true }).click()
  await expect(page.getByText('far corner: 10 at')).toBeVisible()
  await page.getByRole('button', { name: 'intake' }).click()
  for (const button of await page
    .getByRole('group', { name: 'Strength at intake' })
    .getByRole('button')
    .all()) {
    const box = await button.boundingBox()
    expect(box?.height).toBeGreaterThanOrEqual(56)
    expect(box?.width).toBeGreaterThanOrEqual(56)
  }
  await start(page, id, 'Priming and restart')
  await page.getByLabel('Note').last().fill('a b')
  await expect(page.getByRole('list', { name: /Readings/ }).getByRole('listitem')).toHaveCount(0)
  await page.getByLabel('Note').last().press('Enter')
  await page.keyboard.press('Space')
  await clockShows(page, 0.2)
  await page.keyboard.press('Space')
  await expect(page.getByText(/Primed at the first try/)).toContainText('(a b)')
  await page.getByRole('button', { name: 'Leak watch' }).click()
  await page.getByLabel('Water caught, mL (if any)').fill('12')
  await page.getByLabel('Where, and when').fill('left clip, first night')
  await page.getByRole('button', { name: 'It leaks' }).click()
  await expect(page.getByText(/Leaks: 12\.?0?\smL/)).toContainText('left clip, first night')
  await saved(page)
  const { readings } = await trialsOf(page, id)
  expect(readings.filter((r) => r.kind === 'dye').map((r) => r.value)).toEqual([0, 2, 5, 7, 8, 8, 10])
})
