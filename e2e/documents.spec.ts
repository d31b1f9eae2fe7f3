import { expect, test } from './helpers'

test('a model goes out as a file, is altered, looked at, taken and taken back; a broken file is refused with its line', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Import and export' }).click()
  await expect(page.getByLabel('A model')).toContainText('Mop 300', { timeout: 45000 })
  await page.getByLabel('with photos, as an archive').uncheck()
  await page.getByLabel('A model').selectOption({ label: 'Mop 300' })
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save Mop 300 as a file' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('model.ypso.json')
  const chunks: Buffer[] = []
  for await (const c of await file.createReadStream()) chunks.push(c as Buffer)
  const text = Buffer.concat(chunks).toString('utf8')
  const give = (name: string, content: string) =>
    page
      .getByLabel('A document to read')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) })
  await give('same.ypso.json', text)
  await expect(page.getByRole('status').filter({ hasText: 'same.ypso.json' })).toContainText(
    '0 new, 0 changed',
  )
  await expect(page.getByRole('button', { name: 'Import all' })).toHaveCount(0)
  await give('cut.ypso.json', text.slice(0, 3000))
  await expect(page.getByRole('alert')).toContainText('cut.ypso.json is refused; nothing was touched.')
  await expect(page.getByRole('alert').getByRole('row').nth(1)).toContainText(
    String(text.slice(0, 3000).split('\n').length),
  )
  const note = '<img src=x onerror=alert(1)>'
  const altered = JSON.parse(text) as { rows: { models: { note: string }[] } }
  Object.assign(altered.rows.models[0] ?? {}, { note })
  await give('altered.ypso.json', JSON.stringify(altered))
  await expect(page.getByText(`empty → ${note}`).or(page.getByText(note))).toBeVisible()
  await page.getByRole('button', { name: 'Import all' }).click()
  await expect(page.getByText('Imported.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Undone. Everything is as it was before the import.')).toBeVisible()
})

test('a price list comes in as a table: looked at line by line, taken, and taken back; a claim in it goes out as words', async ({
  page,
}) => {
  await page.goto('/documents')
  const give = (name: string, content: string) =>
    page
      .getByLabel('A document to read')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(content) })
  await give(
    'prices of November.csv',
    'maker;model;price;currency\nTarn & Wick;Mop 300;21,50;EUR\nNobody;Nothing;1;EUR\n',
  )
  await expect(page.getByRole('combobox', { name: 'It is a table of' })).toHaveValue('prices')
  const refused = page.getByRole('alert').getByRole('row').nth(1)
  await expect(refused).toContainText('3')
  await expect(refused).toContainText('a maker and one of your filters')
  await give('prices of November.csv', 'maker;model;price;currency\nTarn & Wick;Mop 300;21,50;EUR\n')
  await expect(page.getByText('19.90 → 21.50')).toBeVisible()
  await page.getByRole('button', { name: 'Import all' }).click()
  await expect(page.getByText('Imported.')).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save Price list as CSV' }).click(),
  ])
  const chunks: Buffer[] = []
  for await (const c of await file.createReadStream()) chunks.push(c as Buffer)
  expect(Buffer.concat(chunks).toString('utf8')).toMatch(
    /^Tarn & Wick,Mop 300,[0-9a-f-]{36},list,21\.5,EUR,\r$/m,
  )
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Undone. Everything is as it was before the import.')).toBeVisible()
})
