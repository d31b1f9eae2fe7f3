import type { Dossier, ImportRequest, Trial } from '@ypsometer/contract'
import type { TrialKind } from '@ypsometer/core/bench'
import type { Target, Taken } from '../../csv/mapping'

const KIND: Readonly<Record<Target['id'], TrialKind>> = {
  runs: 'vessel',
  weighed: 'weighed',
  curve: 'read',
  dye: 'dye',
  power: 'power',
  noise: 'noise',
}

/** Targets that can be put into a trial of this kind. */
export const targetsFor = (kind: TrialKind | null): readonly Target['id'][] =>
  (Object.keys(KIND) as Target['id'][]).filter((t) => kind === null || (t !== 'curve' && KIND[t] === kind))

/** What an import writes: into a trial that is there, or into new ones under the model's usual conditions. */
export function importBody(
  dossier: Dossier,
  target: Target['id'],
  taken: Taken,
  into: Trial | null,
  now: Date,
): ImportRequest {
  const kind = KIND[target]
  const at = (i: number): string => new Date(now.getTime() + i).toISOString()
  const last = dossier.trials.at(-1)
  const fresh = (lift = 0): NonNullable<ImportRequest['trials']>[number] => ({
    id: crypto.randomUUID(),
    modelId: dossier.model.id,
    kind,
    state: target === 'curve' ? 'empty' : (last?.state ?? 'empty'),
    hookupId: target === 'curve' ? null : (last?.hookupId ?? null),
    lift,
    mainsFrequency: dossier.model.mainsFrequency,
    waterTemperature: last?.waterTemperature ?? 22,
    note: 'imported',
  })
  if (target === 'curve') {
    const heads = [...new Set(taken.rows.map((r) => Math.round((r.head ?? 0) * 1000) / 1000))]
    const trials = heads.map((h) => fresh(h))
    return {
      trials,
      readings: taken.rows.map((r, i) => ({
        id: crypto.randomUUID(),
        trialId: trials[heads.indexOf(Math.round((r.head ?? 0) * 1000) / 1000)]?.id ?? '',
        kind,
        takenAt: at(i),
        value: r.flow ?? 0,
      })),
    }
  }
  const trial = into ? null : fresh()
  const trialId = into?.id ?? trial?.id ?? ''
  const trials = trial ? [trial] : []
  if (target === 'runs' || target === 'weighed')
    return {
      trials:
        trial && target === 'runs' ? [{ ...trial, vesselVolume: taken.rows[0]?.volume ?? 0.005 }] : trials,
      readings: taken.rows.map((r, i) => ({
        id: crypto.randomUUID(),
        trialId,
        kind,
        takenAt: at(i),
        seconds: r.seconds ?? null,
        volume: r.volume ?? null,
        value: r.mass ?? null,
      })),
    }
  const series =
    target === 'dye'
      ? taken.series
      : [
          {
            name: target === 'noise' ? 'with' : '',
            times: taken.rows.map((r) => r.time ?? 0),
            values: taken.rows.map((r) => r.value ?? 0),
          },
        ]
  return {
    trials,
    logs: series.map((s) => ({
      id: crypto.randomUUID(),
      trialId,
      startedAt: now.toISOString(),
      series: s.name,
      note: 'imported',
      times: [...s.times],
      values: [...s.values],
    })),
  }
}
