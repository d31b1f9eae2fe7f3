import {
  modelRecord,
  pathRecord,
  tankRecord,
  usualHookup,
  type Dossier,
  type Medium,
  type Tank,
} from '@ypsometer/contract'
import { candidateOf, fittingOf } from '@ypsometer/contract/candidate'
import { clogCase } from '@ypsometer/contract/clog'
import { setUpSubject } from '@ypsometer/contract/faults'
import { advise, NO_WISHES } from '@ypsometer/core/advice/advise'
import { compareRows } from '@ypsometer/core/advice/compare'
import { forTheDifference } from '@ypsometer/core/advice/difference'
import { ladderFor } from '@ypsometer/core/advice/ladder'
import { ladderWords } from '@ypsometer/core/advice/present'
import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import { explain } from '@ypsometer/core/advice/words'
import { dueFigures, reportOf } from '@ypsometer/core/clogging/report'
import { clogSentences } from '@ypsometer/core/clogging/forecastWords'
import { learn } from '@ypsometer/core/clogging/study'
import { feedDoubt } from '@ypsometer/core/clogging/tank'
import { sentenceText, type Sentence } from '@ypsometer/core/figures/figure'
import { CHECKS } from '@ypsometer/core/hands/checks'
import { setUpSteps } from '@ypsometer/core/hands/setUp'
import { assess, type Assessment } from '@ypsometer/core/judging/assess'
import { fitFindings } from '@ypsometer/core/judging/fitting'
import { strengthOf } from '@ypsometer/core/judging/strength'
import { tankBalance } from '@ypsometer/core/judging/tankBalance'
import { tankFit } from '@ypsometer/core/judging/tankFit'
import { redundancySentences } from '@ypsometer/core/judging/redundancy'
import { together } from '@ypsometer/core/judging/together'
import { auditOrder, HOUSE_RULES } from '@ypsometer/core/path/audit'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { disclosureWords } from '@ypsometer/core/review/disclosure'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { wrongWays } from '@ypsometer/core/teardown/placing'
import { trialFindings } from '@ypsometer/core/trials/findings'
import { trialResults } from '@ypsometer/core/trials/flows'
import { BENCH_MEDIA } from './fills'
import { demoBundle } from '.'

/** Sentences of one subject, in the order in which they are made; none twice. */
export type Sentences = Readonly<Record<string, readonly string[]>>

const MEDIA = BENCH_MEDIA as unknown as Medium[]
const normal = STOCK_CLASSES.find((c) => c.code === 'normal') as StockClass

/** Every sentence of the core that a bench of models and tanks makes, subject by subject, in metric units. */
export function sentencesOf(models: readonly Dossier[], tanks: readonly Tank[]): Sentences {
  const out = new Map<string, Set<string>>()
  const put = (subject: string, ...list: readonly (Sentence | string)[]): void => {
    const all = out.get(subject) ?? new Set<string>()
    for (const s of list) all.add(typeof s === 'string' ? s : sentenceText(s, 'metric'))
    out.set(subject, all)
  }
  const records = tanks.map((t) =>
    tankRecord(t, STOCK_CLASSES.find((c) => c.code === t.stockClassId) ?? normal),
  )
  const known = models.map((d) => {
    const a = assess(modelRecord(d, MEDIA), { stockClasses: STOCK_CLASSES })
    return { d, a, candidate: candidateOf(d, MEDIA, a) }
  })
  for (const { d, a } of known) {
    ofVerdict(a, put)
    ofTeardown(d, put)
    ofMedia(d, a, put)
    const flows = trialResults(modelRecord(d, MEDIA))
    for (const f of trialFindings({ model: modelRecord(d, MEDIA), flows, main: a.main }))
      put('Bench', ...f.sentences)
    for (const tank of records) {
      const fill = a.verdict.shipped
      const fitting = fittingOf(d)
      if (fitting) put('Fit', ...fitFindings(tank, fitting).map((f) => f.sentence))
      put('Tanks', tankFit(tank, fill).sentence)
      if (!fill) continue
      const study = tankBalance(tank, fill)
      if (study) put('Water forecast', ...study.sentences.map((s) => s.sentence))
      put('Two filters', ...redundancySentences(tank, fill, study).map((s) => s.sentence))
      if (fill.outlet) {
        const strength = strengthOf(tank, fill.flow, [{ id: 'a', name: 'Outlet', outlet: fill.outlet }], { openArea: 2e-4, sponge: false }, true) // prettier-ignore
        put('Current', ...strength.sentences.map((s) => s.sentence))
      }
    }
  }
  const [first, second] = known.flatMap(({ a }) => (a.verdict.shipped ? [a.verdict.shipped] : []))
  for (const tank of records) {
    if (first && second) {
      const both = together(tank, [{ name: 'One', fill: first }, { name: 'Other', fill: second }]) // prettier-ignore
      if (both) put('Two filters', ...both.sentences.map((s) => s.sentence))
    }
    const list = advise(
      { tank, wishes: NO_WISHES, rule: ADVICE_RULE },
      known.map((k) => k.candidate),
    )
    put('Advice', ladderWords(ladderFor({ water: tank.water.value, stock: tank.stock }, ADVICE_RULE), list))
    for (const a of list.slice(0, 6)) {
      const { reasons, needs } = explain(tank, a, ADVICE_RULE.weights)
      put('Advice', ...reasons, ...needs)
    }
    for (const a of list) put('Advice, not suitable', ...a.stops.map((s) => s.sentence))
  }
  const candidates = known.map((k) => k.candidate)
  for (const [i, a] of candidates.entries())
    for (const b of candidates.slice(i + 1, i + 4)) {
      const rows = compareRows(
        [a, b],
        { stock: normal, rule: ADVICE_RULE, refilled: false, shelf: new Map() },
        () => '',
      )
      const s = forTheDifference([a, b], rows, 1)
      if (s) put('Comparison', s)
    }
  for (const c of CHECKS) put('Troubleshooting', c.cause, c.how, c.shows, c.why, c.remedy)
  return Object.fromEntries([...out].map(([k, v]) => [k, [...v]]))
}

type Put = (subject: string, ...list: readonly (Sentence | string)[]) => void

function ofVerdict({ verdict: v, proposed }: Assessment, put: Put): void {
  put('Verdict', v.words, ...v.reasons.map((r) => r.sentence))
  put('Still needed', ...v.missing.flatMap((m) => [m.what, m.changes]))
  put('Standard tests', ...proposed.flatMap((p) => [p.what, p.why]))
}

function ofTeardown(d: Dossier, put: Put): void {
  const subject = setUpSubject(d)
  put('Teardown', ...wrongWays(subject.parts).map((w) => w.says))
  put('Set-up', ...setUpSteps(subject).flatMap((s) => [s.says, s.why]))
  put('Disclosure', ...d.specimens.map((s) => disclosureWords(s)))
}

/** Layer checks under each house, and the clogging forecast of the first setup. */
function ofMedia(d: Dossier, a: Assessment, put: Put): void {
  const path = pathRecord(d, MEDIA, a, usualHookup(d))
  for (const fill of d.fills) {
    const base = path && pathBase(path, fill.id)
    if (base?.kind !== 'ready') continue
    const outcome = outcomeOf({ ...base.base, fill }, normal)
    for (const house of HOUSE_RULES)
      for (const f of auditOrder(outcome, house)) put('Layer check', f.sentence, ...(f.cure ? [f.cure] : []))
  }
  const [fill] = d.fills
  const tank = tankRecord(demoBundle.tanks[0] as unknown as Tank, normal)
  const c = fill && clogCase(d, MEDIA, a, { tank, fillId: fill.id })
  if (!c) return
  const l = learn(c, feedDoubt(tank), [])
  const run = reportOf(l.alone)
  put('Clogging forecast', ...clogSentences(run, dueFigures(l, run.answers)))
}

/** The sentences of the demo. */
export const demoSentences = (): Sentences =>
  sentencesOf(
    demoBundle.models.map((m) => ({ logs: [], photos: [], ...m }) as unknown as Dossier),
    demoBundle.tanks as unknown as Tank[],
  )

/** The file in which they are read: one heading a subject, one line a sentence. */
export const asPage = (all: Sentences): string =>
  [
    '# Sentences',
    '',
    'Every sentence that the demo makes, written by `npm run sentences`. A change to a generator shows here.',
    ...Object.entries(all).flatMap(([subject, list]) => [
      '',
      `## ${subject}`,
      '',
      ...[...list].sort().map((s) => `- ${s}`),
    ]),
    '',
  ].join('\n')
