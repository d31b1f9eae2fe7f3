import { assess } from '@ypsometer/core/judging/assess'
import type { ModelRecord, TrialRecord } from '@ypsometer/core/trials/records'
import { seededNormal } from '@ypsometer/core/statistics/random'
import { Bench } from './bench'

/**
 * A reviewer at the simulated bench: a vessel whose mark is off by some share, a hand that is always a little late, a
 * tape whose zero is off, all by as much as the method states and the same for the whole sitting.
 */
function sitting(name: string, seed: number): { readonly record: ModelRecord; readonly bench: Bench } {
  const normal = seededNormal(seed * 7919 + 13)
  const bench = new Bench(seed, name)
  const truth = bench.truth
  const head = truth.label.head ?? 1
  const method = { vessel: 0.01, resolution: 0.01, reaction: 0.05 }
  const [mark, start, stop, datum] = [0.01 * normal(), 0.05 * normal(), 0.05 * normal(), 0.003 * normal()]
  const litres = truth.vessel / 1000
  const base = {
    hookupId: null,
    waterTemperature: bench.on.temperature,
    mainsFrequency: 50,
    method,
    state: 'empty',
  } as const
  const at = (lift: number, i: number): TrialRecord => {
    bench.on.lift = lift === 0 ? 0 : Math.max(0, lift + datum + 0.005 * normal())
    bench.settle()
    const runs = Array.from({ length: 5 }, () => {
      const about = litres / bench.trueFlow
      bench.tare()
      bench.advance(about)
      const collected = bench.read('MASS') as { value: number }
      const flow = collected.value / 998 / about
      const seconds = (litres * (1 + mark)) / flow + (stop - start) + 0.08 * normal() + 0.08 * normal()
      return { volume: litres, seconds: Math.round(seconds * 100) / 100 }
    })
    return { ...base, id: `t${i}`, lift, runs }
  }
  const lifts = [0, 0.15, 0.3, 0.45, 0.6, 0.75].map((s) => Math.round(s * head * 100) / 100)
  const shutOff = (truth.pump?.shutOffHead ?? 1) - datum
  return {
    bench,
    record: {
      kind: truth.kind,
      mainsFrequency: 50,
      claims: [],
      hookups: [
        {
          ...truth.hookup,
          id: 'own',
          sourceBelowWater: truth.hookup.sourceBelowWater ?? 0,
          bodyBelowWater: 0,
        },
      ],
      mediaMass: null,
      trials: [
        ...lifts.map(at),
        {
          ...base,
          id: 'stop',
          kind: 'shut-off',
          lift: 0,
          runs: Array.from({ length: 3 }, () => ({ value: shutOff + 0.01 * normal() })),
        },
      ],
    },
  }
}

test('over 200 seeded sittings the stated 95 % intervals of H0, Q0 and n hold the hidden truth 93 to 97 times in 100', () => {
  const hits = { shutOff: 0, maxFlow: 0, exponent: 0 }
  const models = ['Torrent 1400', 'Ledger 700', 'Undercroft 90', 'Terrace 1200']
  for (let seed = 1; seed <= 200; seed++) {
    const { record, bench } = sitting(models[seed % models.length] ?? '', seed)
    const fit = assess(record).pump?.fitFigures
    const truth = bench.truth.pump
    if (!fit || !truth) throw new Error(`no fit for seed ${seed}`)
    const holds = (f: { value: number; uncertainty?: number }, v: number): number =>
      Math.abs(f.value - v) <= (f.uncertainty ?? 0) ? 1 : 0
    hits.shutOff += holds(fit.shutOff, truth.shutOffHead)
    hits.maxFlow += holds(fit.maxFlow, truth.maxFlow)
    hits.exponent += holds(fit.exponent, truth.exponent)
  }
  const share = (hits.shutOff + hits.maxFlow + hits.exponent) / 600
  expect(share).toBeGreaterThanOrEqual(0.93)
  expect(share).toBeLessThanOrEqual(0.97)
})
