import { RESOURCE_NAMES } from '@ypsometer/contract'
import { numbersOf, PICKS, put, type Json, type Pick, type Schema } from '../contract/tests/edges'
import { randomUUID } from 'node:crypto'
import { expect, settled, test, watchErrors, within, type Page } from './helpers'

/** A canister and an airlift of the demo: both have a body, chambers, a fill, hookups, trials and visits. */
const MODELS = {
  'Ledger 700': 'f100f68e-c1c3-441a-8c34-37023aa4b3e9',
  'Bellows S2': '7462915b-b96a-408f-8674-0e74166f4077',
} as const
const OTHER = '06ea9f9f-bbee-408a-8c30-7d22bd40beff'
const STATIONS = ['claims', 'strip', 'inside', 'bench', 'fill', 'path', 'tanks', 'verdict', 'visits']
const viewsOf = (model: string): readonly string[] => [
  ...STATIONS.map((s) => `/models/${model}/${s}`),
  '/advise',
  `/compare?m=${model},${OTHER}`,
  '/upkeep',
  '/tanks',
  '/',
]

interface Target {
  readonly model: string
  readonly collection: string
  readonly row: Json & { readonly id: string }
  readonly schema: Schema
}
interface OpenApi {
  readonly paths: Readonly<
    Record<string, { patch?: { requestBody?: { content?: Readonly<Record<string, { schema: Schema }>> } } }>
  >
}

/** A row of each kind that the stations of the model stand on. */
async function targets(page: Page, model: string): Promise<readonly Target[]> {
  const read = async (path: string) => (await page.request.get(`/api/v1${path}`)).json() as Promise<Json>
  const dossier = (await read(`/models/${model}/dossier`)) as Readonly<Record<string, Target['row'][]>>
  const lists: Record<string, unknown> = { ...dossier }
  const { paths } = (await read('/openapi.json')) as unknown as OpenApi
  const schemaOf = (name: string): Schema =>
    paths[`/api/v1/${name}/{id}`]?.patch?.requestBody?.content?.['application/json']?.schema ?? {}
  for (const path of ['media', 'tanks', 'house-rules', 'stock-classes'])
    lists[path] = ((await read(`/${path}`)) as { items: unknown }).items
  return RESOURCE_NAMES.flatMap((name) => {
    const rows = (lists[name] ?? []) as Target['row'][]
    const row = name === 'house-rules' ? rows.find((r) => r.chosen) : rows[0]
    return row && numbersOf(schemaOf(name)).length
      ? [{ model, collection: name, row, schema: schemaOf(name) }]
      : []
  })
}

/** Writes fields of a row; false where they are refused by their fields, which is as good. */
async function write(page: Page, { model, collection, row }: Target, fields: Json): Promise<boolean> {
  const now = await page.request.get(`/api/v1/models/${model}/dossier`)
  const dossier = (await now.json()) as Readonly<Record<string, { id: string; version: number }[]>>
  const list =
    dossier[collection] ??
    ((await (await page.request.get(`/api/v1/${collection}`)).json()) as { items: typeof dossier.models })
      .items
  const version = list?.find((r) => r.id === row.id)?.version ?? 1
  const r = await page.request.patch(`/api/v1/${collection}/${row.id}`, {
    headers: { 'if-match': `"${version}"`, 'idempotency-key': randomUUID() },
    data: fields,
  })
  if (r.status() === 200) return true
  const body = (await r.json()) as { errors?: { field: string }[] }
  expect([collection, fields, r.status(), Boolean(body.errors?.[0]?.field)]).toEqual([
    collection,
    fields,
    r.status() < 500 ? r.status() : 'no fault',
    true,
  ])
  return false
}

/** What no screen says, in its text and in the attributes of what it draws. */
const BAD = /\bNaN\b|\bInfinity\b|\bundefined\b|\[object /
async function looks(
  page: Page,
  model: string,
  what: string,
  errors: string[],
  wrong: string[],
): Promise<void> {
  // A review takes its figures when it is made.
  const review = randomUUID()
  const made = await page.request.post('/api/v1/reviews', {
    headers: { 'idempotency-key': randomUUID() },
    data: { id: review, modelId: model, title: what },
  })
  if (made.status() !== 201) wrong.push(`${what}: no review is made: ${await made.text()}`)
  for (const [i, view] of [...viewsOf(model), `/reviews/${review}`].entries()) {
    // The first is read anew, with what was written; the others stand on the same.
    if (i === 0) await page.goto(view)
    else await within(page, view)
    await settled(page)
    const html = await page.evaluate(() => document.getElementById('root')?.outerHTML ?? '')
    const found = BAD.exec(html)
    if (found)
      wrong.push(`${what}: ${view} says ${html.slice(Math.max(0, found.index - 90), found.index + 40)}`)
    wrong.push(...errors.splice(0).map((e) => `${what}: ${view}: ${e.slice(0, 300)}`))
  }
}

/** How much is tried: all kinds of rows at once; EDGES=kinds, one kind after another; EDGES=all, one number too. */
const HOW = process.env.EDGES ?? 'at once'

/** Puts numbers of a row to one end, all or those of one path; gives what puts them back. */
async function putTo(page: Page, t: Target, pick: Pick, path: string | null): Promise<() => Promise<void>> {
  const settable = Object.fromEntries(Object.entries(t.row).filter(([k]) => k in (t.schema.properties ?? {})))
  const all = put(settable, t.schema, pick, path) as Json
  const changed = Object.entries(all).filter(([k, v]) => JSON.stringify(v) !== JSON.stringify(settable[k]))
  // Together they may contradict each other: then one field after another.
  if (changed.length && !(await write(page, t, Object.fromEntries(changed))))
    for (const [k, v] of changed) await write(page, t, { [k]: v })
  return async () => {
    for (const [k] of changed) await write(page, t, { [k]: settable[k] })
  }
}

for (const [name, model] of Object.entries(MODELS))
  test(`every number of ${name} at its least, just above it and at its most: no screen breaks or says what is none`, async ({
    page,
  }) => {
    test.setTimeout(HOW === 'at once' ? 240_000 : 6 * 3600_000)
    const errors = watchErrors(page)
    const wrong: string[] = []
    await page.goto('/')
    const all = await targets(page, model)
    if (HOW === 'at once')
      for (const pick of ['least', 'most'] as const) {
        const back: (() => Promise<void>)[] = []
        for (const t of all) back.unshift(await putTo(page, t, pick, null))
        await looks(page, model, `all at the ${pick}`, errors, wrong)
        for (const undo of back) await undo()
      }
    else
      for (const t of all)
        for (const path of HOW === 'all' ? [null, ...numbersOf(t.schema)] : [null])
          for (const pick of PICKS) {
            const undo = await putTo(page, t, pick, path)
            await looks(page, model, `${t.collection} ${path ?? 'all'}, ${pick}`, errors, wrong)
            await undo()
          }
    expect(wrong).toEqual([])
  })
