import { answersOf } from '@ypsometer/core/clogging/study'
import { forecast } from '@ypsometer/core/clogging/run'
import { reportOf } from '@ypsometer/core/clogging/report'
import { quickTank } from '@ypsometer/core/advice/quickTank'
import { assess } from '@ypsometer/core/judging/assess'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { demoBundle } from './index'
import { clogCase } from '@ypsometer/contract/clog'
import { modelRecord, type Dossier, type Medium } from '@ypsometer/contract'

const media = [...GENERIC_MEDIA, ...demoBundle.media] as unknown as Medium[]
const normal = STOCK_CLASSES.find((c) => c.code === 'normal') as StockClass

test.each(demoBundle.models.map((m) => [m.model.name, m] as const))(
  '%s: every fill can be forecast; the books close, flow only falls, and what is caught is somewhere',
  (_, m) => {
    const d = { logs: [], photos: [], ...m } as unknown as Dossier
    const a = assess(modelRecord(d, media))
    for (const fill of d.fills) {
      const c = clogCase(d, media, a, { tank: quickTank(0.1, normal), fillId: fill.id })
      if (!c) throw new Error(`${fill.name} has no path`)
      const run = forecast({ ...c, intake: [], days: 60 })
      const { made, lying, inWater, held, changed, rotted, serviced } = run.ledger
      expect(Math.abs(made - lying - inWater - held - changed - rotted - serviced)).toBeLessThan(1e-6 * made)
      run.days.forEach((day, i) => {
        expect(day.flow).toBeLessThanOrEqual((run.days[i - 1]?.flow ?? Infinity) * (1 + 1e-6))
        expect(day.unstrained >= 0 && day.unstrained <= 1 + 1e-9).toBe(true)
        for (const l of day.layers)
          expect(l.full >= 0 && l.full <= 1 && l.keeps > 0 && l.keeps <= 1).toBe(true)
      })
      const { shares } = answersOf(run)
      const all = shares.reduce((x, y) => x + y, 0)
      expect(all === 0 || Math.abs(all - 1) < 1e-9).toBe(true)
      expect(structuredClone(reportOf(run)).days).toHaveLength(61)
    }
  },
)

test('a fill that is gone, or a model of which only a label is known, has no forecast', () => {
  const [m] = demoBundle.models
  const d = { logs: [], photos: [], ...m } as unknown as Dossier
  const a = assess(modelRecord(d, media))
  const tank = quickTank(0.1, normal)
  expect(clogCase(d, media, a, { tank, fillId: 'gone' })).toBeNull()
  const bare = { ...d, bodies: [], chambers: [] }
  expect(clogCase(bare, media, a, { tank, fillId: d.fills[0]?.id ?? '' })).toBeNull()
})
