import { answersOf, isDue, learn, type Learnt } from '@ypsometer/core/clogging/study'
import { dirtCase, feedDoubt, type DirtQuestion } from '@ypsometer/core/clogging/tank'
import { forecast, type ClogCase } from '@ypsometer/core/clogging/run'
import {
  schoolSeasons,
  reportOf,
  type SchoolSeason,
  type ForecastReport,
} from '@ypsometer/core/clogging/report'
import type { Belief } from '@ypsometer/core/clogging/learn'
import { observationsOf, type UnitHistory } from '@ypsometer/core/visits/history'
import { CoreError, TooFew, type At } from '@ypsometer/core/errors/errors'
import type { Fill, FillLayer } from '@ypsometer/core/fills/place'
import { calibrateMedium, type BenchCalibration } from '@ypsometer/core/path/rest'
import {
  caseOfTrial,
  loadedTrials,
  measuredAt,
  pathBase,
  type PathBase,
  type PathRecord,
} from '@ypsometer/core/path/fromModel'
import { changesOf, differences, schoolViews, type Difference } from '@ypsometer/core/path/compare'
import { fillCapacityFigure, pathFlowFigure } from '@ypsometer/core/path/figures'
import { fitFill, type FitLimits, type FitResult } from '@ypsometer/core/path/optimise'
import { outcomeOf, type Outcome } from '@ypsometer/core/path/outcome'
import { outcomeWithout, studyOf, type StudyQuestion } from '@ypsometer/core/path/study'
import { topologyOf } from '@ypsometer/core/path/topology'
import type { OrderFinding } from '@ypsometer/core/path/audit'
import type { PathChange } from '@ypsometer/core/path/helpful'
import type { Rule } from '@ypsometer/core/path/rules/types'
import type { Figure, Sentence } from '@ypsometer/core/figures/figure'
import { toInp } from '@ypsometer/core/network/inp'

/** A rule without its arithmetic, as it travels between threads. */
export type RuleSaid = Omit<Rule, 'check'>
export type FindingSaid = Omit<OrderFinding, 'rule'> & { readonly rule: RuleSaid }

/** Part of a question that changes with every drag. */
export type PathQuestion = Required<StudyQuestion>

/** The answer: everything Fill and Path show; or why there is none, at its field. */
export type PathAnswer =
  | {
      readonly kind: 'ready'
      readonly outcome: Outcome
      readonly findings: readonly FindingSaid[]
      readonly differences: readonly Difference[] | null
      readonly contradictions: readonly (readonly [string, string])[]
      readonly sensitivity: readonly PathChange[]
      readonly rest: { readonly trialId: string | null; readonly fill: string | null }
      readonly seconds: number
    }
  | { readonly kind: 'missing'; readonly what: string }
  | {
      readonly kind: 'wrong'
      readonly at: At | null
      readonly field: string
      readonly message: string
      /** The same without what cannot be, so that there is something to correct it in. */
      readonly outcome: Outcome | null
    }

/** Answers of the search and of the schools. */
export interface FitAnswer {
  readonly layers: readonly FillLayer[]
  readonly tried: number
  /** Capacity and flow of the best. */
  readonly carries: Figure
  readonly flow: Figure
  /** Forecast of it, and of the fill as it is. */
  readonly dirt: FitResult['dirt']
  readonly better: boolean
  readonly outcome: Outcome
  readonly changes: readonly Sentence[]
  readonly differences: readonly Difference[]
  readonly findings: readonly FindingSaid[]
  /** Cost of the media now and before (minor units). */
  readonly cost: { readonly now: number; readonly before: number; readonly currency: string | null }
}
export interface SchoolAnswer {
  readonly school: string
  readonly name: string
  readonly findings: readonly FindingSaid[]
  readonly burden: number
  readonly fitted: Outcome
  readonly flow: Figure
  readonly layers: readonly FillLayer[]
}

/** A loaded trial, computed and measured. */
export interface TrialCheck {
  readonly trialId: string
  readonly fill: string
  readonly lift: number
  readonly computed: Figure
  readonly measured: Figure
  /** It told what the body takes, so that it agrees by construction. */
  readonly told: boolean
}
export type CalibrationAnswer =
  | { readonly kind: 'ready'; readonly result: BenchCalibration }
  | { readonly kind: 'wrong'; readonly message: string }

/** Data of visits: what was seen, minutes of one opening. */
export interface SeasonQuestion extends DirtQuestion {
  readonly history: UnitHistory
  readonly minutesToOpen: number | null
  /** Share of the first flow at which the house calls it due. */
  readonly dueAt: number
}
/** A forecast with its interval and what visits made of it, and the schools beside each other. */
export interface SeasonAnswer extends Pick<Learnt, 'due' | 'seen'> {
  readonly prior: Belief
  readonly posterior: Belief
  readonly asShipped: ForecastReport
  readonly run: ForecastReport
  readonly slow: ForecastReport
  readonly fast: ForecastReport
  readonly alone: ForecastReport
  readonly schools: readonly SchoolSeason[]
}

/** Forecasts of arrangements in a body on a tank, until each is due. */
const dirtOf =
  (body: Parameters<typeof dirtCase>[0], fill: Fill, on: Omit<DirtQuestion, 'fill'>): FitLimits['dirt'] =>
  (layers) => {
    try {
      const run = forecast(dirtCase(body, { ...on, fill: { ...fill, layers } }), isDue)
      const { due, toMedia } = answersOf(run)
      return { days: due?.day ?? null, within: on.days, toMedia }
    } catch (error) {
      if (error instanceof CoreError) return null
      throw error
    }
  }

const said = (f: OrderFinding): FindingSaid => {
  const { check: _check, ...rule } = f.rule
  return { ...f, rule }
}

type Limits = Pick<FitLimits, 'minFlow' | 'maxCostMinor'>
type Ready = Extract<PathBase, { kind: 'ready' }>
type Base = Ready['base']

function fitted(
  record: PathRecord,
  base: Base,
  q: PathQuestion,
  limits: Limits,
  on: Omit<DirtQuestion, 'fill'> | null,
): FitAnswer {
  const c = { ...base, fill: q.fill }
  const r = fitFill(c, {
    ...limits,
    dirt: on ? dirtOf(base, q.fill, on) : undefined,
    house: q.house,
    stock: q.stock,
    reaches: q.reaches,
    media: record.media,
  })
  return {
    layers: r.best.layers,
    carries: fillCapacityFigure(r.best.outcome, q.stock),
    flow: pathFlowFigure(r.best.outcome),
    dirt: r.dirt,
    tried: r.tried,
    better: r.best !== r.start,
    outcome: r.best.outcome,
    changes: changesOf(r.best.outcome, r.start.outcome, {
      now: r.best.findings,
      before: r.start.findings,
    }),
    differences: differences(r.best.outcome, r.start.outcome, q.stock),
    findings: r.best.findings.map(said),
    cost: {
      now: r.best.outcome.cost.costMinor,
      before: r.start.outcome.cost.costMinor,
      currency: r.best.outcome.cost.currency,
    },
  }
}

function schoolAnswers(
  record: PathRecord,
  base: Base,
  q: PathQuestion,
  limits: Limits,
): readonly SchoolAnswer[] {
  const c = { ...base, fill: q.fill }
  const outcome = outcomeOf(c, q.stock, true)
  return schoolViews(c, outcome, {
    ...limits,
    stock: q.stock,
    reaches: q.reaches,
    media: record.media,
  }).map((v) => ({
    school: v.house.school,
    name: v.house.name,
    findings: v.findings.map(said),
    burden: v.burden,
    fitted: v.fitted.best.outcome,
    flow: pathFlowFigure(v.fitted.best.outcome),
    layers: v.fitted.best.layers,
  }))
}

function trialChecks(record: PathRecord, b: Ready, stock: PathQuestion['stock']): readonly TrialCheck[] {
  return loadedTrials(record).flatMap((t) => {
    try {
      const o = outcomeOf(caseOfTrial(b.base, record, t), stock)
      return [
        {
          trialId: t.trial.id,
          fill: o.case.fill.name,
          lift: t.trial.lift,
          computed: { ...pathFlowFigure(o), id: `check-${t.trial.id}` },
          measured: t.figure,
          told: t.trial.id === b.restTrialId,
        },
      ]
    } catch {
      return []
    }
  })
}

function calibrated(
  record: PathRecord,
  base: Base,
  mediumId: string,
  [withoutId, withId]: readonly [bare: string, filled: string],
): CalibrationAnswer {
  const side = (id: string) => {
    const t = loadedTrials(record).find((x) => x.trial.id === id)
    if (!t) throw new TooFew('trialId', 0, 1, 'This test has no media setup recorded.')
    return { case: caseOfTrial(base, record, t), measured: measuredAt(t) }
  }
  try {
    return {
      kind: 'ready',
      result: calibrateMedium({ without: side(withoutId), with: side(withId) }, mediumId),
    }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    return { kind: 'wrong', message: error.message }
  }
}

/** What visits taught of a case, and the three schools on it. */
function seasonOf(c: ClogCase, q: SeasonQuestion): SeasonAnswer {
  const { layers } = reportOf(forecast({ ...c, days: 1 }))
  const { seen, services } = observationsOf(q.history, layers)
  const l = learn({ ...c, services }, feedDoubt(q.tank), seen, q.dueAt)
  return {
    prior: l.prior,
    posterior: l.posterior,
    due: l.due,
    seen: l.seen,
    asShipped: reportOf(l.asShipped, q.dueAt),
    run: reportOf(l.run, q.dueAt),
    slow: reportOf(l.slow, q.dueAt),
    fast: reportOf(l.fast, q.dueAt),
    alone: reportOf(l.alone, q.dueAt),
    schools: schoolSeasons(c, c, q.minutesToOpen, q.dueAt),
  }
}

/** The path's arithmetic with the record it stands on; plain functions, so that it is tested without a worker. */
export function pathWork() {
  let record: PathRecord | null = null
  let base: PathBase | null = null
  let study: ReturnType<typeof studyOf> | null = null
  const bases = new Map<string, PathBase>()
  const ready = () => {
    if (!record || !base) throw new Error('The record has not been given yet.')
    return base
  }
  /** The base of a fill: told by its own trial where it has one. */
  const of = (fill: Pick<Fill, 'id'>): PathBase => {
    if (!record) return ready()
    const kept = bases.get(fill.id) ?? pathBase(record, fill.id)
    bases.set(fill.id, kept)
    return kept
  }
  /** A fill in its body with what stands ahead of it; null where the path cannot be worked out. */
  const arranged = (q: DirtQuestion): ClogCase | null => {
    const b = of(q.fill)
    return b.kind === 'ready' ? dirtCase(b.base, q) : null
  }
  return {
    /** Takes a record and finds what its body takes. */
    prepare(next: PathRecord): void {
      record = next
      base = pathBase(next)
      bases.clear()
      const shipped = base
      study =
        shipped.kind === 'ready'
          ? studyOf((fill) => {
              const own = of(fill)
              return own.kind === 'ready' ? own.base : shipped.base
            })
          : null
    },
    solve(q: PathQuestion): PathAnswer {
      const b = of(q.fill)
      if (b.kind !== 'ready' || !study) return b.kind === 'ready' ? { kind: 'missing', what: 'record' } : b
      const began = performance.now()
      try {
        const { outcome, findings, differences, contradictions, sensitivity } = study(q)
        return {
          kind: 'ready',
          outcome,
          findings: findings.map(said),
          differences,
          contradictions: contradictions.map(([x, y]) => [x.title, y.title] as const),
          sensitivity,
          rest: { trialId: b.restTrialId, fill: b.restFill },
          seconds: (performance.now() - began) / 1000,
        }
      } catch (error) {
        if (!(error instanceof CoreError)) throw error
        const { at, field, problem } = error
        return {
          kind: 'wrong',
          at,
          field,
          message: problem,
          outcome: outcomeWithout({ ...b.base, fill: q.fill }, q.stock, error),
        }
      }
    },
    /** Flow of the fill on every hookup, in the order of the record. */
    hookups(q: PathQuestion): readonly { readonly id: string; readonly figure: Figure }[] {
      const b = of(q.fill)
      if (b.kind !== 'ready' || !record) return []
      return record.model.hookups.flatMap((hookup) => {
        try {
          const o = outcomeOf({ ...b.base, hookup, fill: q.fill }, q.stock)
          return [{ id: hookup.id, figure: { ...pathFlowFigure(o), id: `hookup-${hookup.id}` } }]
        } catch {
          return []
        }
      })
    },
    /** The best fill under the house rule; with a tank, as it is once that tank’s dirt is in it. */
    fit(q: PathQuestion, limits: Limits, on: Omit<DirtQuestion, 'fill'> | null = null): FitAnswer | null {
      const b = of(q.fill)
      return b.kind === 'ready' && record ? fitted(record, b.base, q, limits, on) : null
    },
    schools(q: PathQuestion, limits: Limits): readonly SchoolAnswer[] {
      const b = of(q.fill)
      return b.kind === 'ready' && record ? schoolAnswers(record, b.base, q, limits) : []
    },
    /** Every loaded trial whose fill is on record: what the path computes for it beside what was measured. */
    checks(q: PathQuestion): readonly TrialCheck[] {
      const b = ready()
      return b.kind === 'ready' && record ? trialChecks(record, b, q.stock) : []
    },
    /** A medium’s permeability from a trial without it and one with it. */
    calibrate(mediumId: string, withoutId: string, withId: string): CalibrationAnswer {
      const b = ready()
      return b.kind === 'ready' && record
        ? calibrated(record, b.base, mediumId, [withoutId, withId])
        : { kind: 'wrong', message: 'There is no pump to calibrate against.' }
    },
    /** Where dirt gathers in a fill, day by day; null where its path cannot be worked out. */
    clog(q: DirtQuestion): ForecastReport | null {
      const c = arranged(q)
      return c && reportOf(forecast(c))
    },
    /** The same with what visits taught, its interval, and the three schools. */
    season(q: SeasonQuestion): SeasonAnswer | null {
      const c = arranged(q)
      return c && seasonOf(c, q)
    },
    /** The pumped circuit as an EPANET file. */
    inp(q: PathQuestion): string {
      const b = of(q.fill)
      if (b.kind !== 'ready') return ''
      return toInp(topologyOf({ ...b.base, fill: q.fill }).pumped, 3 * b.base.drive.pump.maxFlow)
    },
  }
}
export type PathWork = ReturnType<typeof pathWork>
