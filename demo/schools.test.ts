import { modelRecord, pathRecord, usualHookup, type Dossier, type Medium } from '@ypsometer/contract'
import { quickTank } from '@ypsometer/core/advice/quickTank'
import { dirtCase } from '@ypsometer/core/clogging/tank'
import { schoolSeasons } from '@ypsometer/core/clogging/report'
import { seasonSentences } from '@ypsometer/core/clogging/forecastWords'
import { sentenceText } from '@ypsometer/core/figures/figure'
import { assess } from '@ypsometer/core/judging/assess'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { BENCH_MEDIA } from './fills'
import { demoBundle } from '.'

const MEDIA = BENCH_MEDIA as unknown as Medium[]
const normal = STOCK_CLASSES.find((c) => c.code === 'normal') as (typeof STOCK_CLASSES)[number]

/** Every body of the bench with each fill that strains finely and has media, in both orders on a tank of 100 L. */
const cases = demoBundle.models.flatMap((m) => {
  const d = { logs: [], photos: [], ...m } as unknown as Dossier
  const record = pathRecord(d, MEDIA, assess(modelRecord(d, MEDIA)), usualHookup(d))
  return d.fills.flatMap((fill) => {
    const base = record && pathBase(record, fill.id)
    const jobs = fill.layers.map((l) => MEDIA.find((x) => x.id === l.mediumId)?.job)
    if (base?.kind !== 'ready' || !jobs.includes('fine') || !jobs.includes('biological')) return []
    return [{ name: `${d.model.name}, ${fill.name}`, base: base.base, fill }]
  })
})

test('strain first keeps the media cleaner than polish last in every body of the bench, or water bypasses it', () => {
  expect(cases.length).toBeGreaterThan(4)
  const told = cases.map(({ name, base, fill }) => {
    const c = dirtCase(base, { fill, tank: quickTank(0.1, normal), days: 90, sponge: false })
    const all = schoolSeasons(c, c, null)
    const [first, last] = (['strain-first', 'polish-last'] as const).map((school) => {
      const run = all.find((s) => s.school === school && !s.prefilter)?.run
      return { media: run?.answers.toMedia ?? NaN, round: run?.days.at(-1)?.unstrained ?? NaN }
    })
    const said = seasonSentences(all)
      .map((s) => sentenceText(s, 'metric'))
      .join(' ')
    return { name, first, last, said }
  })
  for (const { name, first, last, said } of told) {
    const turned = (first?.media ?? NaN) > (last?.media ?? NaN)
    expect([name, said.includes('does not keep the media cleaner')]).toEqual([name, turned])
    // What is said of it is so: more of the water goes round what strains.
    if (turned) expect([name, (first?.round ?? 0) > (last?.round ?? 1)]).toEqual([name, true])
  }
  expect(told.filter((t) => !t.said.includes('does not keep')).length).toBeGreaterThan(told.length / 2)
})
