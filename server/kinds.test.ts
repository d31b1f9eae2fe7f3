import { DOSSIER_ROWS, LISTS, RESOURCE_NAMES, RESOURCES, YpsoDocument } from '@ypsometer/contract'
import { getTableName, sql } from 'drizzle-orm'
import { TABLES } from './db/schema'
import { harness, write, type Harness } from './tests/harness'

let h: Harness
beforeAll(async () => {
  h = await harness()
})
afterAll(() => h.close())

test('every kind of row is in the document, served, kept in step, and told to every page', async () => {
  expect(Object.keys(YpsoDocument.shape.rows.shape)).toEqual(RESOURCE_NAMES)
  expect([...DOSSIER_ROWS, ...LISTS, 'models'].sort()).toEqual([...RESOURCE_NAMES].sort())
  const { rows } = await h.db.execute<{ name: string }>(
    sql`select event_object_table || ' ' || trigger_name as name from information_schema.triggers`,
  )
  const there = new Set(rows.map((r) => r.name))
  for (const name of RESOURCE_NAMES) {
    const table = getTableName(TABLES[name])
    for (const trigger of ['touch_on_insert', 'touch_on_update', 'written_by_somebody'])
      expect([`${table} ${trigger}`, there.has(`${table} ${trigger}`)]).toEqual([`${table} ${trigger}`, true])
    expect([name, (await h.call('GET', `/${name}/00000000-0000-4000-8000-0000000000ff`)).status]).toEqual([
      name,
      404,
    ])
  }
})

test('what a row names comes before it, and each is a kind that there is', () => {
  const order = (name: string): number => RESOURCE_NAMES.findIndex((n) => n === name)
  for (const name of RESOURCE_NAMES)
    for (const { to, path } of RESOURCES[name].links)
      // A model may be kin of another; who reads a document tells it of that when all are there.
      expect([name, path, order(to) < order(name) || to === name]).toEqual([name, path, true])
})

test('a write that does not say who writes is refused by the database, and one that does is not', async () => {
  const { id } = (await h.create('/tanks', { name: 'Signed' })).body
  const rename = sql`update tank set name = 'Nobody’s' where id = ${id}`
  await expect(h.db.execute(rename)).rejects.toMatchObject({ cause: { code: '28000' } })
  await expect(h.db.execute(sql`delete from tank where id = ${id}`)).rejects.toMatchObject({
    cause: { code: '28000' },
  })
  expect((await h.call('GET', `/tanks/${id}`)).body.name).toBe('Signed')
  await write(h.db, rename)
  expect((await h.call('GET', `/tanks/${id}`)).body.name).toBe('Nobody’s')
  // Who wrote is said for one transaction: the connection’s next one says it anew.
  await expect(h.db.execute(rename)).rejects.toMatchObject({ cause: { code: '28000' } })
})

test('stored rules and classes that lack what was added since are read with it; what they say stays', async () => {
  const [rule] = (await h.call('GET', '/house-rules')).body.items
  const [stock] = (await h.call('GET', '/stock-classes')).body.items
  await write(
    h.db,
    sql`update house_rule set advice = advice #- '{weights,noise}' #- '{cutFloss}', upkeep = '{"fall": 0.2}'
    where id = ${rule.id}`,
  )
  await write(h.db, sql`update stock_class set marks = marks - 'salinity' where id = ${stock.id}`)
  const read = (await h.call('GET', '/house-rules')).body.items.find((r: { id: string }) => r.id === rule.id)
  expect(read.advice).toEqual(rule.advice)
  expect(read.upkeep).toEqual({ ...rule.upkeep, fall: 0.2 })
  const classes = (await h.call('GET', '/stock-classes')).body.items
  expect(Object.keys(classes[0].marks).sort()).toEqual(Object.keys(stock.marks).sort())
  // A change of something else takes nothing of it away.
  const changed = await h.call(
    'PATCH',
    `/house-rules/${rule.id}`,
    { name: 'Renamed' },
    { 'if-match': `"${rule.version}"` },
  )
  expect([changed.status, changed.body.advice]).toEqual([200, rule.advice])
})

test('a list longer than a page is read whole, in its order, and nothing twice', async () => {
  const names = Array.from({ length: 23 }, (_, i) => `Row ${String(i).padStart(2, '0')}`)
  for (const name of [...names].reverse()) await h.create('/tanks', { name })
  const seen: string[] = []
  for (let cursor: string | null = ''; cursor !== null;) {
    const page: { items: { name: string }[]; next: string | null } = (
      await h.call('GET', `/tanks?limit=5${cursor ? `&cursor=${cursor}` : ''}`)
    ).body
    seen.push(...page.items.map((t) => t.name))
    cursor = page.next
  }
  expect(seen.filter((n) => n.startsWith('Row '))).toEqual(names)
  expect((await h.call('GET', '/tanks?limit=501')).status).toBe(400)
})
