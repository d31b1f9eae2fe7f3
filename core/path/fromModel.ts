import { CoreError } from '../errors'
import type { Fill } from '../fills'
import { thumbFlow } from '../bench'
import { affinity, airliftCurve, throttledRun } from '../hydraulics'
import { netStaticHead } from '../duty'
import { starterHookup } from '../kinds'
import { installedTrial, type TrialResult } from '../trials/flows'
import { knowledgeOf, type KnownPump } from '../trials/modelPump'
import { atMains, claimed } from '../trials/labels'
import type { HookupRecord, ModelRecord } from '../trials/records'
import { FILTERS, hasPump } from '../kinds'
import type { Medium } from '../media'
import type { BodyRecord, Chamber } from '../volumes'
import { airUpTheRiser } from '../trials/air/flow'
import type { ByLabel, Drive, PathCase, SecondFilter, CalibrationTrial } from './case'
import { atLift, reachFrom, restFrom, type MeasuredFlow } from './rest'

/** Base of the path from a model’s record. */
export interface PathRecord {
  readonly model: ModelRecord
  readonly assessment: { readonly pump: KnownPump | null; readonly trials: readonly TrialResult[] }
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

function driveOf(r: PathRecord): Drive | null {
  const { model, assessment } = r
  if (!hasPump(model.kind)) return airDrive(r)
  const { pump } = assessment
  if (!pump) return null
  if (pump.from === 'fit') return { pump: pump.pump, knowledge: knowledgeOf(pump), from: 'fit' }
  // A label's flow is wrong by what labels are wrong by: its curve reaches as far as theirs do.
  const { low, high } = pump.bias
  const middle = (low + high) / 2
  return {
    pump: { ...pump.pump, maxFlow: pump.pump.maxFlow * middle },
    knowledge: { ...knowledgeOf(pump), reach: (high - low) / (2 * middle) } as Drive['knowledge'],
    from: 'label',
    supposedHead: pump.supposedHead,
  }
}

/** The usual run of a kind, where nobody has described one. */
export function supposedHookup(kind: ModelRecord['kind']): HookupRecord {
  let n = 0
  const run = starterHookup(kind, (what) => `usual-${what}-${n++}`)
  return { ...run, id: `usual-${kind}`, name: 'usual plumbing (assumed)' }
}

/** Flow by the rule of thumb from a label (m³/s); null without a rated flow. */
function thumbOf(model: ModelRecord): ByLabel | null {
  const rated = claimed(model, 'rated-flow')
  if (!rated || !(rated.value > 0) || !hasPump(model.kind)) return null
  const label = atMains(rated, model.mainsFrequency).value
  const { low, high } = thumbFlow(label)
  return { label, low, high }
}

/**
 * An airlift by its own curve where riser, depth and air are on record, else falling straight from the measured flow to
 * nothing at half its depth.
 */
function airDrive({ model, assessment }: PathRecord): Drive | null {
  const flow = assessment.trials.findLast((t) => t.trial.state !== 'dirty')?.result.mean
  if (!flow) return null
  const air = model.trials.findLast((t) => t.kind === 'air')
  const { riserDiameter, submergence } = air?.setup ?? {}
  const knowledge = { kind: 'label' } as const
  const supply = air && airUpTheRiser(air.runs)
  if (air && supply && riserDiameter && submergence)
    try {
      // What it lifts above the water is the run's static head, as any pump's is.
      const riser = { diameter: riserDiameter, submergence, lift: 0 }
      return { knowledge, from: 'airlift', pump: airliftCurve(riser, supply) }
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
    }
  const head = submergence ? submergence / 2 : AIRLIFT_HEAD
  return { knowledge, from: 'straight', pump: { maxFlow: flow, shutOffHead: head, exponent: 1 } }
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

/**
 * The trial that tells how the body behaves: one of the fill itself where there is one, else one as shipped; of those
 * the one nearest to how the filter stands, the newest of several.
 */
function tellingTrial(
  r: PathRecord,
  hookup: PathCase['hookup'],
  fillId: string | null,
): TrialResult | undefined {
  const static_ = hookup ? netStaticHead(hookup).head : 0
  const apart = (t: TrialResult): number => Math.abs(Math.max(0, t.trial.lift) - static_)
  const loaded = loadedTrials(r).filter((t) => t.result.mean > 0)
  const own = loaded.filter((t) => fillAt(r, t.trial)?.id === fillId)
  // What the verdict takes as measured is what the path is told by.
  const asInstalled =
    own[0] && installedTrial(own, { ...r.model, hookups: hookup ? [hookup] : [] }, own[0].trial.state)
  if (asInstalled) return asInstalled
  const shipped = loaded.filter(
    (t) => t.trial.state === 'as-shipped' && fillAt(r, t.trial)?.basis === 'as-shipped',
  )
  return (own.length ? own : shipped).reduce<TrialResult | undefined>(
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
      !['empty', 'dirty'].includes(t.trial.state) &&
      (t.trial.hookupId !== null || !FILTERS[r.model.kind].hoses) &&
      fillAt(r, t.trial) !== null,
  )

/** A trial as a case of its own: its fill, hookup, water and mains, at its lift. */
export function caseOfTrial(base: Omit<PathCase, 'fill'>, r: PathRecord, t: TrialResult): PathCase {
  const { hookupId, waterTemperature, salinity, mainsFrequency, lift, valve } = t.trial
  const hookup = r.model.hookups.find((h) => h.id === hookupId) ?? ownHookup(r)
  const fill = fillAt(r, t.trial)
  if (!fill) throw new Error('This test has no media setup recorded.')
  const { drive } = base
  // A pump turns with the mains; an air pump's air is what it was at the trial.
  const pump = hasPump(base.kind) ? affinity(drive.pump, mainsFrequency / r.model.mainsFrequency) : drive.pump
  return atLift(
    {
      ...base,
      drive: { ...drive, pump },
      hookup: hookup && { ...hookup, segments: throttledRun(hookup.segments, valve) },
      second: null,
      temperature: waterTemperature,
      salinity: salinity ?? 0,
      fill,
    },
    Math.max(0, lift),
  )
}

/** The run a filter without hoses always has. */
const ownHookup = (r: PathRecord): PathCase['hookup'] =>
  FILTERS[r.model.kind].hoses
    ? null
    : (r.model.hookups[0] ?? (hasPump(r.model.kind) ? supposedHookup(r.model.kind) : null))

/**
 * Builds the case of a hookup: the drive as known, and how the body behaves by the trial that tells it; for one fill,
 * by a trial of that fill where there is one.
 */
export function pathBase(r: PathRecord, fillId: string | null = null): PathBase {
  const drive = driveOf(r)
  if (!drive)
    return {
      kind: 'missing',
      what: hasPump(r.model.kind)
        ? 'a pump: add rated flow and maximum head, or time the flow at three heights'
        : 'a flow: time some runs with the air on',
    }
  const described = r.model.hookups.find((h) => h.id === r.hookupId) ?? r.model.hookups[0] ?? null
  const hookup = described ?? (hasPump(r.model.kind) ? supposedHookup(r.model.kind) : null)
  const bare: Omit<PathCase, 'fill'> = {
    kind: r.model.kind,
    body: r.body,
    chambers: r.chambers,
    media: r.media,
    hookup,
    ...(hookup && !described && { supposed: { within: thumbOf(r.model) } }),
    claimedMax: claimed(r.model, 'tank-max')?.value ?? null,
    second: r.second ?? null,
    drive,
    rest: 0,
    weighed: weighedFill(r),
    temperature: USUAL,
  }
  const nothing: PathBase = { kind: 'ready', base: bare, restTrialId: null, restFill: null }
  const trial = tellingTrial(r, hookup, fillId)
  if (!trial) return { ...nothing, base: onItsHoses(bare, r) }
  try {
    const { base, told } = toldBy(bare, r, trial)
    const { temperature, salinity = 0 } = told.case
    return {
      kind: 'ready',
      base: { ...base, temperature, salinity, told },
      restTrialId: trial.trial.id,
      restFill: told.case.fill.name,
    }
  } catch (error) {
    // The fill of that trial cannot be worked out: how the body behaves stays unknown until it is mended.
    if (!(error instanceof CoreError)) throw error
    return nothing
  }
}

/** Doubt of a label's curve that was brought to one timing, besides the timing (relative; no source). */
const BROUGHT = 0.05

/** A label's curve brought to what the empty body gave on its hoses, where that was timed. */
function onItsHoses(bare: Omit<PathCase, 'fill'>, r: PathRecord): Omit<PathCase, 'fill'> {
  const { drive, supposed } = bare
  if (drive.from !== 'label' || supposed || drive.knowledge.kind !== 'label') return bare
  const empty = installedTrial(r.assessment.trials, r.model, 'empty')
  if (!empty || !(empty.result.mean > 0)) return bare
  const fill: Fill = { id: 'empty', name: 'Empty', basis: 'variant', layers: [] }
  const measured = measuredAt(empty)
  try {
    const reach = reachFrom({ ...bare, fill }, measured)
    const relative = Math.hypot(BROUGHT, (2 * measured.uncertainty) / measured.flow)
    const knowledge = { ...drive.knowledge, reach: relative }
    return { ...bare, drive: { ...reaching(drive, reach), knowledge, brought: true } }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    return bare
  }
}

/** The fill as shipped with the mass its media were weighed at; null while they were not. */
function weighedFill({ fills, model }: PathRecord): NonNullable<PathCase['weighed']> | null {
  const shipped = fills.findLast((f) => f.basis === 'as-shipped')
  return shipped && model.mediaMass?.weighed ? { fillId: shipped.id, mass: model.mediaMass.mass } : null
}

/** A base with what a trial told of it. */
interface ToldBase {
  readonly base: Omit<PathCase, 'fill'>
  readonly told: CalibrationTrial
}

/** Calibrations from the trials of a record: the same for all of its fills, and asked for each. */
const TOLD = new WeakMap<PathRecord, Map<TrialResult, ToldBase>>()

/** Calibration by a loaded trial: what trays and grids take, or how far the drive's curve reaches. */
function toldBy(bare: Omit<PathCase, 'fill'>, r: PathRecord, trial: TrialResult): ToldBase {
  const kept = TOLD.get(r) ?? new Map<TrialResult, ToldBase>()
  TOLD.set(r, kept)
  const told = kept.get(trial) ?? tell(bare, r, trial)
  kept.set(trial, told)
  return told
}

function tell(bare: Omit<PathCase, 'fill'>, r: PathRecord, trial: TrialResult): ToldBase {
  const measured = measuredAt(trial)
  const standing = caseOfTrial(bare, r, trial)
  const rest = hasPump(bare.kind) ? restFrom(standing, measured) : 0
  const base =
    rest > 0 ? { ...bare, rest } : { ...bare, drive: reaching(bare.drive, reachFrom(standing, measured)) }
  return {
    base,
    told: {
      case: caseOfTrial(base, r, trial),
      knob: rest > 0 ? 'rest' : 'reach',
      flow: measured.flow,
      uncertainty: measured.uncertainty,
      degreesOfFreedom: trial.result.effectiveDegreesOfFreedom,
    },
  }
}

const reaching = (drive: Drive, reach: number): Drive => ({
  ...drive,
  reach,
  pump: { ...drive.pump, maxFlow: drive.pump.maxFlow * reach },
})
