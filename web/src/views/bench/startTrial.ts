import type { Dossier, Trial } from '@ypsometer/contract'
import type { TrialKind } from '@ypsometer/core/bench'
import type { ProposedTrial } from '@ypsometer/core/judging'
import { createRow } from '../../api/queries'

const DEFAULTS = {
  specimenId: null,
  hookupId: null,
  state: 'empty',
  lift: 0,
  waterTemperature: 22,
  vesselVolume: 0.005,
  vesselUncertainty: 0.01,
  clockResolution: 0.01,
  reaction: 0.05,
  daysInUse: null,
  valve: 1,
  outlet: '',
  mainsVoltage: null,
  setup: {},
  outReason: null,
  note: '',
  typed: {},
}

const CONDITIONS = [
  'specimenId',
  'hookupId',
  'state',
  'lift',
  'waterTemperature',
  'mainsFrequency',
  'vesselVolume',
  'vesselUncertainty',
  'daysInUse',
  'valve',
  'outlet',
  'mainsVoltage',
  'typed',
] as const

/** Conditions and setup of the last trial of this kind, else the conditions of the last of any: most trials repeat most of them. */
function asLast(dossier: Dossier, kind: TrialKind): Partial<Trial> {
  const same = dossier.trials.findLast((t) => t.kind === kind)
  const last = same ?? dossier.trials.at(-1)
  return {
    ...(last && Object.fromEntries(CONDITIONS.map((k) => [k, last[k]]))),
    ...(same && { setup: same.setup }),
  }
}

/** Makes a trial of a kind from the conditions of the last, with what is asked for laid over. Returns its id. */
export function startTrial(dossier: Dossier, kind: TrialKind, over: Partial<Trial> = {}): string {
  const { model } = dossier
  return createRow('trials', {
    modelId: model.id,
    ...DEFAULTS,
    mainsFrequency: model.mainsFrequency,
    ...asLast(dossier, kind),
    ...over,
    kind,
  })
}

/** Makes the trial a proposal asks for. */
export function startProposed(dossier: Dossier, p: ProposedTrial): string {
  return startTrial(dossier, p.kind, {
    state: p.state,
    lift: p.lift,
    hookupId: p.hookup === 'own' ? (dossier.hookups[0]?.id ?? null) : null,
    ...(p.state === 'dirty' ? {} : { daysInUse: null }),
  })
}

/** The same trial once more: its kind, conditions and setup, with no readings. */
export function repeatTrial(dossier: Dossier, t: Trial): string {
  return startTrial(dossier, t.kind, {
    ...Object.fromEntries(CONDITIONS.map((k) => [k, t[k]])),
    setup: t.setup,
    clockResolution: t.clockResolution,
    reaction: t.reaction,
  })
}
