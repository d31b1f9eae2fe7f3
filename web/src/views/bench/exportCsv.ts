import type { Dossier } from '@ypsometer/contract'
import type { ChartData } from '../../charts/ChartTools'

/** Every reading of a bench with the conditions of its trial, a row each, in SI. */
export function benchCsv(d: Dossier): ChartData {
  const hookups = new Map(d.hookups.map((h) => [h.id, h.name]))
  return {
    name: `${d.model.name} bench`,
    columns: [
      'trial',
      'kind',
      'state',
      'hookup',
      'lift, m',
      'tap open',
      'outlet',
      'water, °C',
      'supply, Hz',
      'supply, V',
      'days in use',
      'out of the fit because',
      'taken at',
      'series',
      'volume, m³',
      'seconds',
      'value, SI',
      'outcome',
      'note',
      'instrument',
    ],
    rows: d.trials.flatMap((t) => {
      const conditions = [
        t.id,
        t.kind,
        t.state,
        t.hookupId ? (hookups.get(t.hookupId) ?? '') : '',
        t.lift,
        t.valve,
        t.outlet,
        t.waterTemperature,
        t.mainsFrequency,
        t.mainsVoltage ?? '',
        t.daysInUse ?? '',
        t.outReason ?? '',
      ]
      return d.readings
        .filter((r) => r.trialId === t.id)
        .map((r) => [
          ...conditions,
          r.takenAt,
          r.series,
          r.volume ?? '',
          r.seconds ?? '',
          r.value ?? '',
          r.outcome,
          r.note,
          r.source,
        ])
    }),
  }
}
