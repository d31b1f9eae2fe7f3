import { CoreError } from '../errors'
import type { Fill } from '../fills'
import { netStaticHead } from '../hydraulics'
import type { Assessment, ModelRecord } from '../judging'
import type { TrialResult } from '../judging/flows'
import { hasPump } from '../kinds'
import type { Medium } from '../media'
import type { BodyRecord, Chamber } from '../volumes'
import type { Drive, PathCase, SecondFilter } from './case'
import { atLift, restFrom, type MeasuredFlow } from './rest'

/** What a model’s record gives the path to work with. */
export interface PathRecord {
  readonly model: ModelRecord
  readonly assessment: Pick<Assessment, 'pump' | 'trials'>
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly media: readonly Medium[]
  readonly fills: readonly Fill[]
  readonly hookupId: string | null
  readonly second?: SecondFilter | null
  /** Which fill was in the body at a trial, by the trial’s id, where it was noted. */
  readonly fillOfTrial: Readonly<Record<string, string | null>>
}

/** The case without a fill, and the trial that told what the body takes; or why there is none. */
export type PathBase =
  | {
      readonly kind: 'ready'
      readonly base: Omit<PathCase, 'fill'>
      readonly restTrialId: string | null
      readonly restFill: string | null
    }
  | { readonly kind: 'missing'; readonly what: string }

/** Temperature the path is worked at when no loaded trial says otherwise (°C). */
const USUAL = 25

/** Head (m) at which an airlift of unknown depth stops (common practice, no source). */
const AIRLIFT_HEAD = 0.05

function driveOf({ model, assessment }: PathRecord): Drive | null {
  const { pump, trials } = assessment
  if (hasPump(model.kind)) {
    if (!pump) return null
    return {
      pump: pump.pump,
      knowledge: pump.fit
        ? { kind: 'fit', covariance: pump.fit.covariance, coverage: pump.fit.coverage }
        : { kind: 'label' },
      from: pump.from,
    }
  }
  const flow = trials.findLast((t) => t.trial.state !== 'dirty')?.result.mean
  if (!flow) return null
  const depth = model.trials.findLast((t) => t.kind === 'air')?.setup?.submergence
  const head = depth ? depth / 2 : AIRLIFT_HEAD
  return {
    pump: { maxFlow: flow, shutOffHead: head, exponent: 1 },
    knowledge: { kind: 'label' },
    from: 'airlift',
  }
}

/** The fill that was in the body at a trial: as noted, else by the trial’s state. */
export function fillAt(
  r: Pick<PathRecord, 'fills' | 'fillOfTrial'>,
  trial: { readonly id: string; readonly state: string },
): Fill | null {
  const noted = r.fillOfTrial[trial.id]
  if (noted) return r.fills.find((f) => f.id === noted) ?? null
  return r.fills.findLast((f) => f.basis === trial.state) ?? null
}

/** A trial’s flow with its uncertainty and lift. */
export const measuredAt = (t: TrialResult): MeasuredFlow => ({
  flow: t.result.mean,
  uncertainty: t.result.standardUncertainty,
  lift: Math.max(0, t.trial.lift),
})

/** The as-shipped trial nearest to how the filter stands, the newest of several: it tells what the body takes. */
function tellingTrial(r: PathRecord, hookup: PathCase['hookup']): TrialResult | undefined {
  const static_ = hookup ? netStaticHead(hookup).head : 0
  const apart = (t: TrialResult): number => Math.abs(Math.max(0, t.trial.lift) - static_)
  return loadedTrials(r)
    .filter((t) => t.trial.state === 'as-shipped' && fillAt(r, t.trial)?.basis === 'as-shipped')
    .reduce<TrialResult | undefined>(
      (best, t) => (best && apart(best) < apart(t) - 1e-9 ? best : t),
      undefined,
    )
}

/**
 * Trials with something in the body, and a fill and hookup on record: what media can be calibrated from and checked
 * against.
 */
export const loadedTrials = (r: PathRecord): readonly TrialResult[] =>
  r.assessment.trials.filter(
    (t) =>
      !['empty', 'dirty'].includes(t.trial.state) && t.trial.hookupId !== null && fillAt(r, t.trial) !== null,
  )

/** A trial as a case of its own: its fill, hookup and water, at its lift. */
export function caseOfTrial(base: Omit<PathCase, 'fill'>, r: PathRecord, t: TrialResult): PathCase {
  const hookup = r.model.hookups.find((h) => h.id === t.trial.hookupId) ?? null
  const fill = fillAt(r, t.trial)
  if (!fill) throw new Error('This trial has no fill on record.')
  return atLift(
    { ...base, hookup, second: null, temperature: t.trial.waterTemperature, fill },
    Math.max(0, t.trial.lift),
  )
}

/** Builds the case of a hookup: the pump as known, and what the body takes by the trial that tells it. */
export function pathBase(r: PathRecord): PathBase {
  const drive = driveOf(r)
  if (!drive)
    return {
      kind: 'missing',
      what: hasPump(r.model.kind)
        ? 'a pump: copy the rated flow and the maximum head, or time it at three lifts'
        : 'a flow: time some runs with its air on',
    }
  const hookup = r.model.hookups.find((h) => h.id === r.hookupId) ?? r.model.hookups[0] ?? null
  const bare: Omit<PathCase, 'fill'> = {
    kind: r.model.kind,
    body: r.body,
    chambers: r.chambers,
    media: r.media,
    hookup,
    second: r.second ?? null,
    drive,
    rest: 0,
    temperature: USUAL,
  }
  const told = hasPump(r.model.kind) ? tellingTrial(r, hookup) : undefined
  const fill = told && fillAt(r, told.trial)
  if (!told || !fill) return { kind: 'ready', base: bare, restTrialId: null, restFill: null }
  const own = r.model.hookups.find((h) => h.id === told.trial.hookupId) ?? null
  const temperature = told.trial.waterTemperature
  let rest: number
  try {
    rest = restFrom({ ...bare, hookup: own, second: null, temperature, fill }, measuredAt(told))
  } catch (error) {
    // The fill of that trial cannot be worked out: what the body takes stays unknown until it is mended.
    if (!(error instanceof CoreError)) throw error
    return { kind: 'ready', base: bare, restTrialId: null, restFill: null }
  }
  return {
    kind: 'ready',
    base: { ...bare, rest, temperature, told: measuredAt(told) },
    restTrialId: told.trial.id,
    restFill: fill.name,
  }
}
