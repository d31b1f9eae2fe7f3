import type { Dossier, PatchOf, Trial } from '@ypsometer/contract'
import { usualHookup } from '@ypsometer/contract/records'
import type { TrialKind } from '@ypsometer/core/trials/readings'
import type { ProposedTrial } from '@ypsometer/core/judging/proposed'
import { createRow } from '../api/rows'

const CONDITIONS = [
  'specimenId',
  'hookupId',
  'state',
  'lift',
  'waterTemperature',
  'salinity',
  'mainsFrequency',
  'vesselVolume',
  'vesselUncertainty',
  'daysInUse',
  'valve',
  'outlet',
  'mainsVoltage',
  'typed',
] as const

type Conditions = Pick<Trial, (typeof CONDITIONS)[number]>
const conditionsOf = (t: Trial): Conditions =>
  Object.fromEntries(CONDITIONS.map((k) => [k, t[k]])) as Conditions

/**
 * Conditions and setup of the last trial of this kind, else the conditions of the last of any: most trials repeat most
 * of them.
 */
function asLast(dossier: Dossier, kind: TrialKind): Partial<PatchOf<'trials'>> {
  const same = dossier.trials.findLast((t) => t.kind === kind)
  const last = same ?? dossier.trials.at(-1)
  return { ...(last && conditionsOf(last)), ...(same && { setup: same.setup }) }
}

/** Makes a trial of a kind from the conditions of the last, with what is asked for laid over. Returns its id. */
export function startTrial(dossier: Dossier, kind: TrialKind, over: PatchOf<'trials'> = {}): string {
  const { model } = dossier
  return createRow('trials', {
    modelId: model.id,
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
    hookupId: p.hookup === 'own' ? usualHookup(dossier) : null,
    ...(p.state === 'dirty' ? {} : { daysInUse: null }),
  })
}

/** The same trial once more: its kind, conditions and setup, with no readings. */
export const repeatTrial = (dossier: Dossier, t: Trial): string =>
  startTrial(dossier, t.kind, {
    ...conditionsOf(t),
    setup: t.setup,
    clockResolution: t.clockResolution,
    reaction: t.reaction,
  })
