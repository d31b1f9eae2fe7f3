import {
  RESOURCES,
  modelRecord,
  rowToBe,
  type CreateOf,
  type Dossier,
  type ResourceName,
} from '@ypsometer/contract'
import { readingProblem } from '@ypsometer/core/trials/readings'
import { CoreError } from '@ypsometer/core/errors/errors'
import { roughnessFits } from '@ypsometer/core/hydraulics/segments'
import { assess } from '@ypsometer/core/judging/assess'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import { z } from 'zod'
import { valuesOf, type Schema } from './tests/values'

/** Rows that a body the contract accepts would make, with `tied` ids. */
function rows<N extends ResourceName>(name: N, tied: object = {}): fc.Arbitrary<Dossier['claims'][number]> {
  const { Create } = RESOURCES[name]
  const schema = z.toJSONSchema(Create, { io: 'input', unrepresentable: 'any' }) as Schema
  return valuesOf(schema)
    .map((body) => ({ ...(body as object), id: randomUUID(), ...tied }))
    .filter((body) => Create.safeParse(body).success)
    .map((body) => rowToBe(name, Create.parse(body) as CreateOf<N>, '2026-11-25T10:00:00Z') as never)
}
const several = (name: ResourceName, tied: object = {}, maxLength = 4) =>
  fc.array(rows(name, tied), { maxLength })

const modelId = randomUUID()
const hookupIds = [randomUUID(), randomUUID()]
const TRIALS = [randomUUID(), randomUUID(), randomUUID()]
const dossiers = fc
  .record({
    model: rows('models', { id: modelId }),
    claims: several('claims', { modelId }, 6),
    hookups: fc.tuple(...hookupIds.map((id) => rows('hookups', { id, modelId }))),
    hooked: fc.integer({ min: 0, max: 2 }),
    trials: fc.tuple(...TRIALS.map((id, i) => rows('trials', { id, modelId, hookupId: hookupIds[i % 2] }))),
    readings: fc.tuple(...TRIALS.map((trialId) => several('readings', { trialId }, 4))),
    specimens: several('specimens', { modelId }, 1),
    contents: several('contents', { modelId }, 2),
    parts: several('parts', { modelId }, 2),
    bodies: several('bodies', { modelId }, 1),
    chambers: several('chambers', { modelId }, 3),
    fills: several('fills', { modelId }, 2),
  })
  .map(({ hooked, ...d }) => {
    // The server refuses a hose that is rougher than its bore allows.
    const hookups = (d.hookups as unknown as Dossier['hookups'])
      .slice(0, hooked)
      .filter((h) => h.segments.every((s) => s.kind !== 'hose' || roughnessFits(s)))
    const there = new Set(hookups.map((r) => r.id))
    const trials = (d.trials as unknown as Dossier['trials']).map((t) =>
      there.has(t.hookupId ?? '') ? t : { ...t, hookupId: null },
    )
    // A reading is of its trial’s kind and holds what that is made of: the server refuses any other.
    const readings = (d.readings.flat() as unknown as Dossier['readings'])
      .map((r) => ({ ...r, kind: trials.find((t) => t.id === r.trialId)?.kind ?? r.kind }))
      .filter((r) => !readingProblem(r.kind, r))
    return { ...d, hookups, trials, readings, logs: [], photos: [] } as unknown as Dossier
  })

/** Where in `value` a number is that is none, or null; degrees of freedom may well be without end. */
function unreal(value: unknown, at = ''): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : at
  if (typeof value !== 'object' || value === null) return null
  for (const [k, v] of Object.entries(value)) {
    const found = /degreesOfFreedom$/i.test(k) ? null : unreal(v, `${at}.${k}`)
    if (found) return found
  }
  return null
}

test('whatever the contract accepts is worked out to numbers that are numbers, or a reason is named', () => {
  let named = 0
  const runs = Number(process.env.RUNS ?? 300)
  fc.assert(
    fc.property(dossiers, (d) => {
      try {
        expect(unreal(assess(modelRecord(d)))).toBeNull()
      } catch (error) {
        if (!(error instanceof CoreError)) throw error
        named++
      }
    }),
    { numRuns: runs },
  )
  // A pump of a million cubic metres a second may defeat the solver; that is not the rule.
  expect(named / runs).toBeLessThan(0.01)
}, 300_000)
