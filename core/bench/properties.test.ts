import fc from 'fast-check'
import { seededNormal } from '../statistics'
import {
  BUCKET_AND_STOPWATCH,
  compareWithLabel,
  flowFromRuns,
  runsNeeded,
  thumbFlow,
  type VesselRun,
} from '.'

const run = fc.record({
  volume: fc.double({ min: 0.0005, max: 0.05, noNaN: true }),
  seconds: fc.double({ min: 2, max: 300, noNaN: true }),
})
const runs = fc.array(run, { minLength: 2, maxLength: 12 })

test('the interval holds the mean, parts add in quadrature, and order of runs does not matter', () => {
  fc.assert(
    fc.property(runs, (list) => {
      const r = flowFromRuns(list)
      expect(r.interval[0]).toBeLessThanOrEqual(r.mean)
      expect(r.interval[1]).toBeGreaterThanOrEqual(r.mean)
      const parts = Math.hypot(r.typeA, r.typeB.vessel, r.typeB.timing, r.typeB.reaction)
      expect(Math.abs(parts / r.standardUncertainty - 1)).toBeLessThan(1e-12)
      const turned = flowFromRuns([...list].reverse())
      expect(Math.abs(turned.mean / r.mean - 1)).toBeLessThan(1e-12)
      expect(r.coverageFactor).toBeGreaterThan(1.95)
    }),
  )
})

test('twice the water in twice the time is the same flow; every volume doubled is twice the flow', () => {
  fc.assert(
    fc.property(runs, (list) => {
      const mean = flowFromRuns(list).mean
      const both = list.map((r) => ({ volume: r.volume * 2, seconds: r.seconds * 2 }))
      const more = list.map((r) => ({ ...r, volume: r.volume * 2 }))
      expect(Math.abs(flowFromRuns(both).mean / mean - 1)).toBeLessThan(1e-12)
      expect(Math.abs(flowFromRuns(more).mean / mean - 2)).toBeLessThan(1e-12)
    }),
  )
})

test('a surer vessel and a quicker hand never widen the interval', () => {
  fc.assert(
    fc.property(runs, fc.double({ min: 0, max: 1, noNaN: true }), (list, share) => {
      const usual = flowFromRuns(list)
      const better = flowFromRuns(list, {
        vessel: BUCKET_AND_STOPWATCH.vessel * share,
        resolution: BUCKET_AND_STOPWATCH.resolution,
        reaction: BUCKET_AND_STOPWATCH.reaction * share,
      })
      expect(better.standardUncertainty).toBeLessThanOrEqual(usual.standardUncertainty * (1 + 1e-12))
    }),
  )
})

test('runs needed: a looser target never asks for more', () => {
  fc.assert(
    fc.property(runs, fc.double({ min: 0.02, max: 0.2, noNaN: true }), (list, target) => {
      const tight = runsNeeded(list, target)
      const loose = runsNeeded(list, target * 2)
      if (!tight.possible) return
      expect(loose.possible).toBe(true)
      if (loose.possible) expect(loose.total).toBeLessThanOrEqual(tight.total)
    }),
    { numRuns: 60 },
  )
})

test('the stated 95 % interval holds the true flow in 93 to 97 % of 2000 simulated timings', () => {
  const normal = seededNormal(2718)
  const truth = 600 / 3.6e6
  const method = { vessel: 0.01, resolution: 0.01, reaction: 0.05 }
  const cases = 2000
  let inside = 0
  for (let i = 0; i < cases; i++) {
    // What is common to the runs of one timing is drawn once: the vessel's mark and the hand's habit at both presses.
    const mark = 0.005 * (1 + method.vessel * normal())
    const habit = method.reaction * normal() - method.reaction * normal()
    const list: VesselRun[] = Array.from({ length: 5 }, () => {
      const seconds = (mark / truth) * (1 + 0.008 * normal()) + habit
      return { volume: 0.005, seconds: Math.round(seconds * 100) / 100 }
    })
    const r = flowFromRuns(list, method)
    if (truth >= r.interval[0] && truth <= r.interval[1]) inside++
  }
  expect(inside / cases).toBeGreaterThan(0.93)
  expect(inside / cases).toBeLessThan(0.97)
})

test('against a label: a finding is certain only when its whole interval is on one side of the limit', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 1.3, noNaN: true }),
      fc.double({ min: 0, max: 0.2, noNaN: true }),
      (share, u) => {
        const f = compareWithLabel(1, share, u)
        const grade = (s: number) => compareWithLabel(1, s, 0).grade?.flow ?? Infinity
        const limit = f.grade?.flow ?? 0.1
        const sides = [share - u, share + u].filter((s) => s > 0).map((s) => grade(s) <= limit)
        if (f.certain) expect(new Set(sides).size).toBe(1)
        expect(f.outsideUncertainty).toBe(Math.abs(share - 1) > u)
      },
    ),
  )
})

test('common practice, no source: 40 to 50 % off the label', () => {
  expect(thumbFlow(1000)).toEqual({ low: 500, high: 600, mid: 550 })
})
