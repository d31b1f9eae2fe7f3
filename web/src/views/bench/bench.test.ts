import '../../../tests/setup'
import { ImportRequest, RESOURCES } from '@ypsometer/contract'
import { TRIAL_KINDS } from '@ypsometer/core/trials/readings'
import { demoDossier } from '../../../tests/dossier'

import { emptyOutbox, noServer, rowsMade, written } from '../../../tests/backend'
import { toCsv } from '../../charts/ChartTools'
import { guessMapping, takeTable, type Target } from '../../csv/mapping'
import { readTable } from '@ypsometer/contract/csv'
import { benchCsv } from './exportCsv'
import { importBody, TARGETS, targetsFor } from './importBody'
import { repeatTrial, startProposed, startTrial } from '../../trials/startTrial'

const dossier = demoDossier('Torrent 1400')
const made = (): Record<string, unknown>[] => written('create')
beforeEach(() => {
  noServer()
  emptyOutbox()
})

describe('beginning a trial', () => {
  test.each(TRIAL_KINDS)('%s: what is made is what the server takes', (kind) => {
    startTrial(dossier, kind)
    const parsed = RESOURCES.trials.Create.safeParse({ id: crypto.randomUUID(), ...made()[0] })
    expect(parsed.error?.issues).toBeUndefined()
    expect(parsed.data).toMatchObject({ kind, modelId: dossier.model.id })
  })
  test('conditions come from the last of its kind, with its setup; a proposal’s own are laid over', () => {
    startTrial(dossier, 'power')
    expect(made()[0]).toMatchObject({ state: 'as-shipped', setup: { currency: 'EUR', pricePerKwhMinor: 31 } })
    startProposed(dossier, { id: 'x', what: '', why: '', kind: 'vessel', state: 'empty', hookup: 'bare', lift: 1.6, done: false, trialId: null }) // prettier-ignore
    expect(made()[1]).toMatchObject({ state: 'empty', lift: 1.6, hookupId: null, vesselVolume: 0.01 })
  })
  test('a repeat has everything but the readings and the reason a point was out', () => {
    const first = dossier.trials[1]
    if (!first) throw new Error('no trial')
    repeatTrial(dossier, { ...first, outReason: 'kinked', valve: 0.5 })
    expect(made()[0]).toMatchObject({ kind: first.kind, lift: first.lift, valve: 0.5 })
    expect(rowsMade[0]).toMatchObject({ outReason: null })
  })
})

describe('importing', () => {
  const body = (id: Target['id'], text: string, into: Parameters<typeof importBody>[3] = null) => {
    const target = TARGETS.find((t) => t.id === id)
    if (!target) throw new Error(id)
    const table = readTable(text)
    const made = importBody(
      dossier,
      target,
      takeTable(table, guessMapping(table, target), target),
      into,
      new Date(0),
    )
    return ImportRequest.parse(made)
  }
  test('a curve makes one trial a head, empty and bare, its flows under it', () => {
    const b = body('curve', 'head (m),flow (L/h)\n0,1000\n0.5,800\n0.5,820\n1,400')
    expect(b.trials.map((t) => [t.kind, t.lift, t.hookupId, t.state])).toEqual([
      ['read', 0, null, 'empty'],
      ['read', 0.5, null, 'empty'],
      ['read', 1, null, 'empty'],
    ])
    expect(b.readings.map((r) => b.trials.findIndex((t) => t.id === r.trialId))).toEqual([0, 1, 1, 2])
  })
  test('dye makes a log a point; runs keep their order; into a trial no new one is made', () => {
    expect(body('dye', 't,a,b\n0,0,0\n5,2,1').logs.map((l) => l.series)).toEqual(['a', 'b'])
    const into = dossier.trials[0]
    if (!into) throw new Error('no trial')
    const runs = body('runs', 'V,t\n5,30\n5,31', into)
    expect(runs.trials).toEqual([])
    expect(runs.readings.map((r) => [r.trialId, r.seconds])).toEqual([[into.id, 30], [into.id, 31]]) // prettier-ignore
    expect((runs.readings[0]?.takenAt ?? '') < (runs.readings[1]?.takenAt ?? '')).toBe(true)
    expect(body('noise', 't,dB\n0,40\n1,41').logs[0]?.series).toBe('with')
  })
  test('a trial takes its own kind only', () => {
    expect(targetsFor('dye').map((t) => t.id)).toEqual(['dye'])
    expect(targetsFor('holding')).toEqual([])
    expect(targetsFor(null).map((t) => t.id)).toContain('curve')
  })
})

test('all of a bench as CSV: a row a reading with the conditions of its trial, formulas defused', () => {
  const csv = benchCsv({ ...dossier, trials: dossier.trials.map((t) => ({ ...t, outlet: '=SUM(A1)' })) })
  expect(csv.rows).toHaveLength(dossier.readings.length)
  csv.rows.forEach((r) => expect(r).toHaveLength(csv.columns.length))
  expect(toCsv(csv)).not.toMatch(/,=SUM/)
})
