import type { CreateOf, Dossier, ImportRequest, Trial } from '@ypsometer/contract'
import type { TrialKind } from '@ypsometer/core/trials/readings'
import type { Target, Taken } from '../../csv/mapping'
import { KIND_ORDER, KINDS } from '../../trials'

/** A table that can be imported, and the kind of trial it becomes. */
export interface Importable extends Target {
  readonly kind: TrialKind
}

/** Every table that can be imported. */
export const TARGETS: readonly Importable[] = KIND_ORDER.flatMap((kind) =>
  (KINDS[kind].imports ?? []).map((t) => ({ ...t, kind })),
)

/** Targets that can be put into a trial of this kind. */
export const targetsFor = (kind: TrialKind | null): readonly Importable[] =>
  TARGETS.filter((t) => kind === null || (!t.trialEach && t.kind === kind))

/** Body of an import: into a trial that is there, or into new ones under the model's usual conditions. */
export function importBody(
  dossier: Dossier,
  target: Importable,
  taken: Taken,
  into: Trial | null,
  now: Date,
): ImportRequest {
  const { kind, trialEach } = target
  const last = dossier.trials.at(-1)
  const fresh = (lift = 0): CreateOf<'trials'> => ({
    id: crypto.randomUUID(),
    modelId: dossier.model.id,
    kind,
    state: trialEach ? 'empty' : (last?.state ?? 'empty'),
    hookupId: trialEach ? null : (last?.hookupId ?? null),
    lift,
    mainsFrequency: dossier.model.mainsFrequency,
    waterTemperature: last?.waterTemperature ?? 22,
    note: 'imported',
    ...target.trial?.(taken.rows[0] ?? {}),
  })
  // A lift is told to the millimetre, so that two of the same are one trial.
  const liftOf = (row: Readonly<Record<string, number>>): number =>
    trialEach ? Math.round((row[trialEach] ?? 0) * 1000) / 1000 : 0
  const lifts = [...new Set(taken.rows.map(liftOf))]
  const trials = into ? [] : lifts.map(fresh)
  const idFor = (row: Readonly<Record<string, number>>): string =>
    into?.id ?? trials[lifts.indexOf(liftOf(row))]?.id ?? ''
  if (target.readings) {
    const readings = taken.rows.flatMap((row) =>
      (target.readings?.(row) ?? []).map((r) => ({ ...r, trialId: idFor(row) })),
    )
    return {
      trials,
      readings: readings.map((r, i) => ({
        ...r,
        id: crypto.randomUUID(),
        kind,
        takenAt: new Date(now.getTime() + i).toISOString(),
      })),
    }
  }
  const logs = taken.series.length
    ? taken.series
    : [
        {
          name: target.logSeries ?? '',
          times: taken.rows.map((r) => r.time ?? 0),
          values: taken.rows.map((r) => r.value ?? 0),
        },
      ]
  return {
    trials,
    logs: logs.map((s) => ({
      id: crypto.randomUUID(),
      trialId: idFor({}),
      startedAt: now.toISOString(),
      series: s.name,
      note: 'imported',
      times: [...s.times],
      values: [...s.values],
    })),
  }
}
