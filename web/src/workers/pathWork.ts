import { CoreError } from '@ypsometer/core/errors'
import type { Fill, FillLayer } from '@ypsometer/core/fills'
import {
  auditOrder,
  calibrateMedium,
  caseOfTrial,
  changesOf,
  contradictions,
  differences,
  fitFill,
  flowFigure,
  loadedTrials,
  measuredAt,
  outcomeOf,
  pathBase,
  pathSensitivity,
  schoolViews,
  topologyOf,
  type BenchCalibration,
  type Difference,
  type FitLimits,
  type HouseRule,
  type OrderFinding,
  type Outcome,
  type PathBase,
  type PathCase,
  type PathChange,
  type PathRecord,
  type Rule,
} from '@ypsometer/core/path'
import type { Figure, Sentence } from '@ypsometer/core/figures'
import { toInp } from '@ypsometer/core/network'
import type { StockClass } from '@ypsometer/core/tanks'
import type { ReachResult } from '@ypsometer/core/teardown/reach'

/** A rule without its arithmetic, as it travels between threads. */
export type RuleSaid = Omit<Rule, 'check'>
export type FindingSaid = Omit<OrderFinding, 'rule'> & { readonly rule: RuleSaid }

/** What of a question changes with every drag. */
export interface PathQuestion {
  readonly fill: Fill
  /** The fill it is held against; null: nothing. */
  readonly against: Fill | null
  readonly house: HouseRule
  readonly stock: StockClass
  readonly reaches: readonly ReachResult[]
  /** Leaves uncertainty and sensitivity out while a layer is dragged. */
  readonly quick: boolean
}

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
      readonly field: string
      readonly message: string
      /** The same without what cannot be, so that there is something to mend it in. */
      readonly outcome: Outcome | null
    }

/** What the search and the schools come back with. */
export interface FitAnswer {
  readonly layers: readonly FillLayer[]
  readonly tried: number
  readonly better: boolean
  readonly outcome: Outcome
  readonly changes: readonly Sentence[]
  readonly differences: readonly Difference[]
  readonly findings: readonly FindingSaid[]
  /** What the media cost now and before (minor units). */
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
  /** It told what the body takes, so that it agrees by making. */
  readonly told: boolean
}
export type CalibrationAnswer =
  | { readonly kind: 'ready'; readonly result: BenchCalibration }
  | { readonly kind: 'wrong'; readonly message: string }

const said = (f: OrderFinding): FindingSaid => {
  const { check: _check, ...rule } = f.rule
  return { ...f, rule }
}

const wrong = (error: unknown): { kind: 'wrong'; field: string; message: string } => {
  if (error instanceof CoreError) return { kind: 'wrong', field: error.field, message: error.message }
  throw error
}

/** Leaves out what an error names, as often as there is something, and works out the rest. */
function withoutWrong(base: Omit<PathCase, 'fill'>, q: PathQuestion, first: unknown): Outcome | null {
  let c: PathCase = { ...base, fill: q.fill }
  let error = first
  for (let i = 0; i < 50 && error instanceof CoreError; i++) {
    const [, what, id] = /^(layers|media|chambers)\[(.+?)\]/.exec(error.field) ?? []
    if (!id) return null
    const layers = c.fill.layers.filter((l) => (what === 'layers' ? l.id : l.mediumId) !== id)
    c =
      what === 'chambers'
        ? { ...c, chambers: c.chambers.map((x) => (x.id === id ? { ...x, wallGap: null } : x)) }
        : { ...c, fill: { ...c.fill, layers } }
    try {
      return outcomeOf(c, q.stock, true)
    } catch (next) {
      error = next
    }
  }
  return null
}

/** The path's arithmetic with the record it stands on; plain functions, so that it is tested without a worker. */
export function pathWork() {
  let record: PathRecord | null = null
  let base: PathBase | null = null
  const ready = () => {
    if (!record || !base) throw new Error('The record has not been given yet.')
    return base
  }
  return {
    /** Takes a record and finds what its body takes. */
    prepare(next: PathRecord): void {
      record = next
      base = pathBase(next)
    },
    solve(q: PathQuestion): PathAnswer {
      const b = ready()
      if (b.kind !== 'ready') return b
      const began = performance.now()
      try {
        const outcome = outcomeOf({ ...b.base, fill: q.fill }, q.stock, q.quick)
        const before = q.against && outcomeOf({ ...b.base, fill: q.against }, q.stock, true)
        return {
          kind: 'ready',
          outcome,
          findings: auditOrder(outcome, q.house, q.reaches).map(said),
          differences: before && differences(outcome, before, q.stock),
          contradictions: contradictions(q.house).map(([x, y]) => [x.title, y.title] as const),
          sensitivity: q.quick ? [] : pathSensitivity(outcome),
          rest: { trialId: b.restTrialId, fill: b.restFill },
          seconds: (performance.now() - began) / 1000,
        }
      } catch (error) {
        return { ...wrong(error), outcome: withoutWrong(b.base, q, error) }
      }
    },
    /** Flow of the fill on every hookup, in the order of the record. */
    hookups(q: PathQuestion): readonly { readonly id: string; readonly figure: Figure }[] {
      const b = ready()
      if (b.kind !== 'ready' || !record) return []
      return record.model.hookups.flatMap((hookup) => {
        try {
          const o = outcomeOf({ ...b.base, hookup, fill: q.fill }, q.stock)
          return [{ id: hookup.id, figure: { ...flowFigure(o), id: `hookup-${hookup.id}` } }]
        } catch {
          return []
        }
      })
    },
    fit(q: PathQuestion, limits: Pick<FitLimits, 'minFlow' | 'maxCostMinor'>): FitAnswer | null {
      const b = ready()
      if (b.kind !== 'ready' || !record) return null
      const c = { ...b.base, fill: q.fill }
      const r = fitFill(c, {
        ...limits,
        house: q.house,
        stock: q.stock,
        reaches: q.reaches,
        media: record.media,
      })
      return {
        layers: r.best.layers,
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
    },
    schools(q: PathQuestion, limits: Pick<FitLimits, 'minFlow' | 'maxCostMinor'>): readonly SchoolAnswer[] {
      const b = ready()
      if (b.kind !== 'ready' || !record) return []
      const c = { ...b.base, fill: q.fill }
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
        flow: flowFigure(v.fitted.best.outcome),
        layers: v.fitted.best.layers,
      }))
    },
    /** Every loaded trial whose fill is on record: what the path computes for it beside what was measured. */
    checks(q: PathQuestion): readonly TrialCheck[] {
      const b = ready()
      if (b.kind !== 'ready' || !record) return []
      const r = record
      return loadedTrials(r).flatMap((t) => {
        try {
          const o = outcomeOf(caseOfTrial(b.base, r, t), q.stock)
          return [
            {
              trialId: t.trial.id,
              fill: o.case.fill.name,
              lift: t.trial.lift,
              computed: { ...flowFigure(o), id: `check-${t.trial.id}` },
              measured: t.figure,
              told: t.trial.id === b.restTrialId,
            },
          ]
        } catch {
          return []
        }
      })
    },
    /** A medium’s permeability from a trial without it and one with it. */
    calibrate(mediumId: string, withoutId: string, withId: string): CalibrationAnswer {
      const b = ready()
      if (b.kind !== 'ready' || !record)
        return { kind: 'wrong', message: 'There is no pump to calibrate against.' }
      const r = record
      const side = (id: string) => {
        const t = loadedTrials(r).find((x) => x.trial.id === id)
        if (!t) throw new Error('This trial has no fill on record.')
        return { case: caseOfTrial(b.base, r, t), measured: measuredAt(t) }
      }
      try {
        return {
          kind: 'ready',
          result: calibrateMedium({ without: side(withoutId), with: side(withId) }, mediumId),
        }
      } catch (error) {
        return { kind: 'wrong', message: error instanceof Error ? error.message : String(error) }
      }
    },
    /** The pumped circuit as an EPANET file. */
    inp(q: PathQuestion): string {
      const b = ready()
      if (b.kind !== 'ready') return ''
      return toInp(topologyOf({ ...b.base, fill: q.fill }).pumped, 3 * b.base.drive.pump.maxFlow)
    },
  }
}
export type PathWork = ReturnType<typeof pathWork>
