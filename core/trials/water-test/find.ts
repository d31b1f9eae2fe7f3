import { put, putFigure, inline, type Figure, type Sentence } from '../../figures'
import type { TrialRecord } from '../records'
import { AMMONIA_OF_NITROGEN, UNIONISED_LIMIT, unionisedShare } from '../../water'
import { base, type Finder, type FindingContext } from '../finding'
import { wholeReadings, type Reading } from '../readings'

type Quantity = Reading<'water-test'>['series']
type Nitrogen = 'ammonia' | 'nitrite' | 'nitrate'

/** Molar masses (g/mol), IUPAC: nitrogen over the ion that a card counts. */
const NITROGEN = 14.007
const ION: Readonly<Record<Nitrogen, number>> = { ammonia: 18.039, nitrite: 46.005, nitrate: 62.004 }

/** Nitrogen in what a card counts as the ion (kg/kg), by molar masses. */
export const nitrogenIn = (q: Nitrogen): number => NITROGEN / ION[q]

/** Usual steps of a colour card and of a meter's last digit. Common practice, no source. */
const STEPS: Readonly<Record<'card' | 'meter', Readonly<Record<Quantity, number>>>> = {
  card: { ammonia: 0.25e-3, nitrite: 0.25e-3, nitrate: 5e-3, ph: 0.2, temperature: 1 },
  meter: { ammonia: 0.01e-3, nitrite: 0.01e-3, nitrate: 0.1e-3, ph: 0.01, temperature: 0.1 },
}
const STEP_FIELD = {
  ammonia: 'stepAmmonia',
  nitrite: 'stepNitrite',
  nitrate: 'stepNitrate',
  ph: 'stepPh',
  temperature: 'stepTemperature',
} as const

/** How fine a quantity was read, in its own unit: as set, else as is usual for a card or a meter. */
export const stepOf = (setup: TrialRecord['setup'], q: Quantity): number =>
  setup?.[STEP_FIELD[q]] ?? STEPS[setup?.readBy ?? 'card'][q]

const LABEL: Readonly<Record<Nitrogen, string>> = {
  ammonia: 'Ammonia, as nitrogen',
  nitrite: 'Nitrite, as nitrogen',
  nitrate: 'Nitrate, as nitrogen',
}

/** The newest reading of a quantity, or null. */
const newest = (runs: readonly Reading<'water-test'>[], q: Quantity): number | null =>
  runs.findLast((r) => r.series === q)?.value ?? null

function nitrogenFigure(trial: TrialRecord, c: FindingContext, q: Nitrogen, read: number): Figure {
  const { setup } = trial
  const byIon = setup?.countedAs !== 'nitrogen'
  const share = byIon ? nitrogenIn(q) : 1
  const half = stepOf(setup, q) / 2
  return {
    ...base(trial, c, `water-${q}`),
    label: LABEL[q],
    value: read * share,
    dimension: 'concentration',
    provenance: 'measured',
    uncertainty: half * share,
    ...(setup?.countedAs === undefined && { assumed: 'the test kit counts the ion' }),
    formula: byIon ? 'c_N = c · M_N ÷ M_ion;  U = half a step' : 'c_N as read;  U = half a step',
    working: [
      put('c', `as read, by ${setup?.readBy ?? 'card'}`, read, 'concentration', 'measured'),
      put('step/2', 'half a step of it', half, 'concentration', 'rule'),
      ...(byIon ? [put('M_N ÷ M_ion', 'nitrogen in the ion', share)] : []),
    ],
    source: 'IUPAC standard atomic weights',
  }
}

/** Figures of a water test: nitrogen in its three forms, pH, temperature, and ammonia that is un-ionised. */
export const waterTest: Finder = (trial, c) => {
  const runs = wholeReadings('water-test', trial.runs)
  const { setup } = trial
  const figures: Figure[] = []
  const parts: Sentence[] = []
  const found = (['ammonia', 'nitrite', 'nitrate'] as const).flatMap((q) => {
    const read = newest(runs, q)
    return read === null ? [] : [{ q, read, figure: nitrogenFigure(trial, c, q, read) }]
  })
  for (const { figure } of found) {
    figures.push(figure)
    parts.push([`${parts.length ? figure.label.toLowerCase() : figure.label} `, inline(figure)])
  }
  const own = (
    id: string,
    label: string,
    value: number,
    dimension: Figure['dimension'],
    step: number,
  ): Figure => ({
    ...base(trial, c, `water-${id}`),
    label,
    value,
    dimension,
    provenance: 'measured',
    uncertainty: step / 2,
    formula: 'as read;  U = half a step',
    working: [put('step/2', 'half a step', step / 2, 'ratio', 'rule')],
  })
  const ph = newest(runs, 'ph')
  const temperature = newest(runs, 'temperature')
  const phFigure = ph === null ? null : own('ph', 'pH', ph, 'ratio', stepOf(setup, 'ph'))
  if (phFigure) {
    figures.push(phFigure)
    parts.push(['pH ', inline(phFigure)])
  }
  if (temperature !== null)
    figures.push(own('temperature', 'Water', temperature, 'temperature', stepOf(setup, 'temperature')))
  const sentences: Sentence[] = parts.length
    ? [[...parts.flatMap((p, i): Sentence => (i ? [', ', ...p] : p)), '.']]
    : []
  const unseen = found.filter((f) => f.q !== 'nitrate' && f.read <= stepOf(setup, f.q) / 2)
  if (found.some((f) => f.q === 'ammonia') && found.some((f) => f.q === 'nitrite'))
    sentences.push([
      unseen.length === 2
        ? 'Ammonia and nitrite read 0: the filter keeps up.'
        : 'Ammonia or nitrite shows: the filter does not keep up yet.',
    ])
  const ammonia = found.find((f) => f.q === 'ammonia')?.figure
  if (ammonia && phFigure) {
    const share = unionisedShare(phFigure.value, temperature ?? trial.waterTemperature)
    const high = unionisedShare(
      phFigure.value + (phFigure.uncertainty ?? 0),
      (temperature ?? trial.waterTemperature) + stepOf(setup, 'temperature') / 2,
    )
    const asGas = AMMONIA_OF_NITROGEN
    const value = ammonia.value * share * asGas
    const most = (ammonia.value + (ammonia.uncertainty ?? 0)) * high * asGas
    const gas: Figure = {
      ...base(trial, c, 'water-unionised'),
      label: 'Un-ionised ammonia',
      value,
      dimension: 'concentration',
      provenance: 'computed',
      uncertainty: most - value,
      ...(ammonia.assumed && { assumed: ammonia.assumed }),
      formula: 'c_N · (17.031 ÷ 14.007) ÷ (1 + 10^(pKa − pH));  pKa = 0.09018 + 2729.92/T',
      working: [
        putFigure('c_N', ammonia),
        putFigure('pH', phFigure),
        put(
          'T',
          temperature === null ? 'water, as set for the test' : 'water',
          temperature ?? trial.waterTemperature,
          'temperature',
          temperature === null ? 'rule' : 'measured',
        ),
        put('share', 'un-ionised', share),
      ],
      source: 'Emerson et al. 1975; limit 0.025 mg/L, EIFAC 1970',
    }
    figures.push(gas)
    if (most > UNIONISED_LIMIT)
      sentences.push([
        'Un-ionised ammonia ',
        inline(gas),
        value > UNIONISED_LIMIT
          ? ' is too high (limit 0.025 mg/L). Change water, and test again.'
          : ': this reading is too coarse to rule out more than 0.025 mg/L.',
      ])
  }
  if (setup?.conditioner)
    sentences.push([
      `A water conditioner was used (${setup.conditioner}): test kits may still count the ammonia it binds.`,
    ])
  return { figures, sentences }
}
