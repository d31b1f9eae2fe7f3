/** @jest-environment node */
import {
  DOSSIER_ROWS,
  modelRecord,
  RESOURCES,
  tankWater,
  type Dossier,
  type ResourceName,
  type Tank,
} from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors/errors'
import { assess } from '@ypsometer/core/judging/assess'
import { STATIONS } from '@ypsometer/core/judging/stations'
import fc from 'fast-check'
import { z } from 'zod'
import { numbersOf, PICKS, put, type Json, type Pick, type Schema } from '../../contract/tests/edges'
import { demoDossier, demoMedia, demoRules, demoStock, demoTanks } from '../tests/dossier'
import prerender from './prerender'

/** What no screen says, in its text and in the attributes of what it draws. */
const BAD = /\bNaN\b|\bInfinity\b|\bundefined\b|\[object /
const LISTS = {
  media: demoMedia(),
  tanks: demoTanks(),
  'house-rules': demoRules(),
  'stock-classes': demoStock(),
}
type Rows = Readonly<Record<string, readonly Json[]>>

/** One number of one kind of row, at one end of its range. */
interface Edge {
  readonly name: ResourceName
  readonly path: string
  readonly pick: Pick
}
const schemaOf = (name: ResourceName): Schema =>
  z.toJSONSchema(RESOURCES[name].Patch, { io: 'input', unrepresentable: 'any' }) as Schema
const EDGES: readonly Edge[] = ([...DOSSIER_ROWS, ...Object.keys(LISTS)] as ResourceName[]).flatMap((name) =>
  numbersOf(schemaOf(name)).flatMap((path) => PICKS.map((pick): Edge => ({ name, path, pick }))),
)

/** The stations of a model with a number of its first row of a kind put to an end; what each says that is none. */
async function wrong(model: string, { name, path, pick }: Edge): Promise<string[]> {
  const all: Rows = { ...(demoDossier(model) as unknown as Rows), ...(LISTS as unknown as Rows) }
  const [first, ...rest] = all[name] ?? []
  if (!first) return []
  const row = put(first, schemaOf(name), pick, path) as Json
  // What the server would not take, nobody sees.
  if (!RESOURCES[name].Row.safeParse(row).success || (name === 'tanks' && !holds(row))) return []
  const { media, tanks, ...more } = { ...all, [name]: [row, ...rest] } as unknown as Omit<
    typeof LISTS,
    never
  > &
    Rows
  const dossier = more as unknown as Dossier
  const opened = {
    dossier,
    media: { items: media },
    'house-rules': { items: more['house-rules'] },
    'stock-classes': { items: more['stock-classes'] },
    'label-bias': { n: 0 },
    assessment: worked(dossier, media as never),
  }
  const found: string[] = []
  for (const station of STATIONS) {
    const html = await prerender({
      address: `/models/${dossier.model.id}/${station}`,
      me: JSON.stringify({
        person: { id: 'e', name: 'Edda', role: 'editor' },
        by: 'session',
        unowned: false,
      }),
      opened: JSON.stringify(opened),
      tanks: JSON.stringify({ items: tanks, next: null }),
    })
    const bad = BAD.exec(html)
    if (bad)
      found.push(`${model}: ${name} ${path}, ${pick}: ${station} says ${html.slice(Math.max(0, bad.index - 90), bad.index + 30)}`) // prettier-ignore
  }
  return found
}
function holds(tank: Json): boolean {
  try {
    tankWater(tank as unknown as Tank)
    return true
  } catch {
    return false
  }
}
function worked(dossier: Dossier, media: Parameters<typeof modelRecord>[1]) {
  try {
    return assess(modelRecord(dossier, media))
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

const MODELS = ['Ledger 700', 'Bellows S2']

// All of them, each number by itself, take some ten minutes: EDGES=all.
test('a number at its least, just above it or at its most: no station says what is none', async () => {
  if (process.env.EDGES === 'all') {
    const found: string[] = []
    for (const m of MODELS) for (const e of EDGES) found.push(...(await wrong(m, e)))
    expect([EDGES.length, found]).toEqual([EDGES.length, []])
    return
  }
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...MODELS), fc.constantFrom(...EDGES), async (model, edge) => {
      expect(await wrong(model, edge)).toEqual([])
    }),
    { numRuns: 12, endOnFailure: true },
  )
}, 3600_000)
