import { fromMinor } from '../units'
import {
  airliftAgainst,
  correctedFromEnergies,
  energyMean,
  hydraulicPower,
  kaplanMeier,
  looksMixed,
  meterFactor,
  mixedResponse,
  powerFromSummary,
  tracerFigures,
  USUAL_SETUP,
  wireToWater,
  type BenchReading,
  type MeterFactor,
  type MixingResult,
  type NoiseResult,
  type Survival,
  type TracerPoint,
  type TracerResult,
} from '../bench'
import { CoreError } from '../errors'
import { put, putFigure, sayFigure, type Figure, type Sentence } from '../figures'
import { waterProperties } from '../water'
import type { TrialResult } from './flows'
import { trialConditions } from './flows'
import type { HookupResult } from './hydraulics'
import { printedFigure } from './rangeFigures'
import type { ModelRecord, TrialRecord } from './records'

/** What one trial of any kind comes to: its figures, sentences to read, and what kept it from coming to anything. */
export interface TrialFinding {
  readonly trial: TrialRecord
  readonly figures: readonly Figure[]
  readonly sentences: readonly Sentence[]
  readonly problem: string | null
}

/** What findings lean on besides their own trial. */
export interface FindingContext {
  readonly model: ModelRecord
  readonly flows: readonly TrialResult[]
  readonly main: HookupResult | null
}

const values = (runs: readonly BenchReading[], series?: string): readonly number[] =>
  runs.flatMap((r) =>
    r.value !== null && r.value !== undefined && (series === undefined || r.series === series)
      ? [r.value]
      : [],
  )

/** Findings of every trial that is not a flow; an arithmetic that refuses says why. */
export const trialFindings = (c: FindingContext): readonly TrialFinding[] =>
  c.model.trials.flatMap((trial): TrialFinding[] => {
    const find = FINDERS[trial.kind ?? 'vessel']
    if (!find || (!trial.runs.length && !trial.logs?.length)) return []
    try {
      return [{ trial, problem: null, ...find(trial, c) }]
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      return [{ trial, figures: [], sentences: [], problem: error.message }]
    }
  })

type Found = Pick<TrialFinding, 'figures' | 'sentences'>
type Finder = (trial: TrialRecord, c: FindingContext) => Found

const base = (trial: TrialRecord, c: FindingContext, id: string) => ({
  id: `${id}-${trial.id}`,
  conditions: trialConditions(trial, c.model),
  ...(trial.when && { when: trial.when }),
})

const power: Finder = (trial, c) => {
  const meter = trial.setup?.relative ?? USUAL_SETUP.relative / 2
  const log = trial.logs?.at(-1)
  const typed = values(trial.runs)
  const r = powerFromSummary(typed.length ? summary(typed) : (log ?? summary(typed)), meter)
  const watts: Figure = {
    ...base(trial, c, 'power'),
    label: 'Power taken',
    value: r.mean,
    dimension: 'power',
    provenance: 'measured',
    uncertainty: r.expandedUncertainty,
    formula: 'P = mean;  U = k · √(u_A² + (P · u_meter)²)',
    working: [
      put('n', log && !typed.length ? 'points of the log' : 'readings', r.n),
      put('u', 'combined standard uncertainty', r.standardUncertainty, 'power'),
      put('u_meter', 'of the meter, share of its reading', meter, 'ratio', 'rule'),
    ],
    source: 'GUM, JCGM 100:2008',
  }
  const year: Figure = {
    ...base(trial, c, 'energy'),
    label: 'Energy in a year, kWh',
    value: r.yearlyEnergy,
    dimension: 'ratio',
    provenance: 'computed',
    uncertainty: r.yearlyEnergy * (r.expandedUncertainty / r.mean || 0),
    formula: 'E = P · 8765.82 h ÷ 1000',
    working: [putFigure('P', watts)],
  }
  const figures = [watts, year]
  const { pricePerKwhMinor, currency } = trial.setup ?? {}
  if (pricePerKwhMinor && currency) {
    const price = fromMinor(pricePerKwhMinor, currency)
    figures.push({
      ...base(trial, c, 'cost'),
      label: `Cost of a year, ${currency}`,
      value: r.yearlyEnergy * price,
      dimension: 'ratio',
      provenance: 'computed',
      formula: 'E · price per kWh',
      working: [putFigure('E', year), put('price', `per kWh, ${currency}`, price)],
    })
  }
  const at = c.flows.findLast((f) => f.trial.state === trial.state && f.trial.hookupId === trial.hookupId)
  const head =
    at && c.main?.measured?.figure.id === at.figure.id
      ? c.main.measured.pumpHead
      : trial.hookupId && c.main?.hookup.id === trial.hookupId
        ? c.main.duty.head
        : null
  if (at && head !== null && r.mean > 0) {
    const { density } = waterProperties({ temperature: trial.waterTemperature })
    const water = hydraulicPower(density, at.result.mean, head)
    figures.push({
      ...base(trial, c, 'efficiency'),
      label: 'Of it, reaches the water',
      value: wireToWater(water, r.mean),
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      formula: 'η = ρ g Q H ÷ P',
      working: [
        putFigure('Q', at.figure),
        put('H', 'pump head at that flow', head, 'head', 'computed'),
        putFigure('P', watts),
      ],
      source: 'hydraulic power of a pump, any handbook',
    })
  }
  const claim = c.model.claims.find((q) => q.quantity === 'power')
  const sentences: Sentence[] = claim
    ? [
        [
          sayFigure(watts),
          ' where the label says ',
          sayFigure(printedFigure(claim)),
          ': ',
          Math.abs(r.mean - claim.value) <= r.expandedUncertainty
            ? 'no more apart than the measurement’s uncertainty.'
            : r.mean > claim.value
              ? 'more than printed.'
              : 'less than printed.',
        ],
      ]
    : []
  return { figures, sentences }
}

const summary = (v: readonly number[]) => {
  const n = v.length
  const mean = n ? v.reduce((a, b) => a + b, 0) / n : 0
  const deviation = n > 1 ? Math.sqrt(v.reduce((s, x) => s + (x - mean) ** 2, 0) / (n - 1)) : 0
  return { n, mean, deviation }
}

const VALIDITY: Readonly<Record<NoiseResult['validity'], string>> = {
  valid: 'background corrected, valid',
  'upper bound': 'less than 3 dB over the background: no louder than this, no more can be said',
  uncorrected: 'background not measured: the room is in it',
}

const noise: Finder = (trial, c) => {
  const level = (series: string): number | null => {
    const typed = values(trial.runs, series)
    const log = trial.logs?.findLast((l) => l.series === series)
    return typed.length ? energyMean(typed) : (log?.energyMean ?? null)
  }
  const raw = level('with')
  if (raw === null)
    return {
      figures: [],
      sentences: [['Only the background was measured yet: note a level with the filter running.']],
    }
  const background = level('without')
  const r = correctedFromEnergies(raw, background)
  const u = Math.hypot(
    trial.setup?.levelUncertainty ?? USUAL_SETUP.levelUncertainty,
    summary(values(trial.runs, 'with')).deviation / Math.sqrt(Math.max(1, values(trial.runs, 'with').length)),
  )
  const figure: Figure = {
    ...base(trial, c, 'noise'),
    label: 'Sound level of the filter',
    value: r.level,
    dimension: 'sound',
    provenance: 'measured',
    uncertainty: 2 * u,
    conditions: [
      ...trialConditions(trial, c.model),
      `${trial.setup?.distance ?? 1} m away`,
      ...(trial.setup?.position ? [trial.setup.position] : []),
      VALIDITY[r.validity],
    ],
    formula: 'L = 10 lg(mean 10^(L/10)) − K1;  K1 = −10 lg(1 − 10^(−0.1 ΔL))',
    working: [
      put('L_with', 'with the filter', r.raw, 'sound', 'measured'),
      ...(r.background === null ? [] : [put('L_without', 'without it', r.background, 'sound', 'measured')]),
      ...(r.difference === null ? [] : [put('ΔL', 'difference', r.difference, 'sound', 'computed')]),
      put('K1', 'background correction', r.correction, 'sound', 'computed'),
    ],
    source: 'ISO 3744:2010, 8.2.3 (from memory)',
  }
  return {
    figures: [figure],
    sentences: [
      ['At ', `${trial.setup?.distance ?? 1} m: `, sayFigure(figure), `, ${VALIDITY[r.validity]}.`],
    ],
  }
}

/** Dye at one point: as a pulse that passes, or as a rise to the mixed strength. */
export interface DyePoint {
  readonly point: string
  readonly mixing: MixingResult | null
  readonly pulse: TracerResult | null
}

/** Reads one point's curve. @throws TooFew or OutOfRange as the core functions do. */
export function dyePoint(point: string, curve: readonly TracerPoint[], nominal: number | null): DyePoint {
  const mixed = looksMixed(curve)
  return {
    point,
    mixing: mixed ? mixedResponse(curve) : null,
    pulse: mixed ? null : tracerFigures(curve, nominal),
  }
}

/** The curves of a dye trial by point, typed or tapped, in time order. */
export function dyeCurves(runs: readonly BenchReading[]): ReadonlyMap<string, readonly TracerPoint[]> {
  const out = new Map<string, TracerPoint[]>()
  for (const r of runs) {
    const key = r.series ?? ''
    const list = out.get(key) ?? []
    list.push({ time: r.seconds ?? 0, concentration: r.value ?? 0 })
    out.set(key, list)
  }
  for (const [key, list] of out) {
    list.sort((a, b) => a.time - b.time)
    // Of two taps in one instant the later one stands.
    out.set(
      key,
      list.filter((p, i) => list[i + 1]?.time !== p.time),
    )
  }
  return out
}

/** Figures of one dye point, for a trial's id and conditions. */
export function dyeFigures(
  trial: { readonly id: string },
  d: DyePoint,
  conditions: readonly string[],
): readonly Figure[] {
  const make = (
    id: string,
    label: string,
    value: number,
    dimension: Figure['dimension'],
    formula: string,
    source: string,
    unit?: string,
  ): Figure[] =>
    Number.isFinite(value)
      ? [
          {
            id: `dye-${trial.id}-${d.point}-${id}`,
            label: `${label}, ${d.point || 'the point'}`,
            value,
            dimension,
            provenance: 'computed',
            conditions,
            formula,
            working: [],
            source,
            ...(unit && { unit }),
          },
        ]
      : []
  const MIX = 'mixed vessel behind a delay, Levenspiel ch. 12'
  const LEV = 'Levenspiel, Chemical Reaction Engineering, ch. 11'
  if (d.mixing)
    return [
      ...make('coloured', 'Colours after', d.mixing.coloured, 'time', 't at 10 % of the final strength', MIX),
      ...make('delay', 'Delay', d.mixing.delay, 'time', 'C = C∞ (1 − e^(−(t − t₀)/τ)), t₀', MIX),
      ...make('tau', 'Time constant', d.mixing.timeConstant, 'time', 'C = C∞ (1 − e^(−(t − t₀)/τ)), τ', MIX),
      ...(d.mixing.mixed === null
        ? []
        : make('mixed', 'Mixed after', d.mixing.mixed, 'time', 't at 95 % of the final strength', MIX)),
    ]
  if (!d.pulse) return []
  const p = d.pulse
  return [
    ...make('mean', 'Mean residence time', p.meanResidence, 'time', 't̄ = ∫tC dt ÷ ∫C dt', LEV),
    ...make('tanks', 'Tanks in series', p.tanksInSeries, 'ratio', 'N = t̄² ÷ σ²', LEV),
    ...make('t10', 't10', p.t10, 'time', 'time by which 10 % has passed', LEV),
    ...make(
      'morrill',
      'Morrill index',
      p.morrill,
      'ratio',
      't90 ÷ t10',
      'Morrill 1932, as used by the US EPA',
    ),
    ...(p.deadShare === null
      ? []
      : make('dead', 'Dead volume', p.deadShare, 'ratio', '1 − t̄ ÷ (V/Q)', LEV, '%')),
  ]
}

const dye: Finder = (trial, c) => {
  const conditions = trialConditions(trial, c.model)
  const volume = trial.setup?.volume
  const at = c.flows.findLast((f) => f.trial.hookupId === trial.hookupId)
  const nominal = volume && at ? volume / at.result.mean : null
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  const problems: string[] = []
  for (const [point, curve] of dyeCurves(trial.runs)) {
    const watched = (trial.setup?.points ?? []).length > 1 || point ? point || 'the point' : 'the point'
    try {
      const d = dyePoint(watched, curve, nominal)
      const own = dyeFigures(trial, d, conditions)
      figures.push(...own)
      sentences.push(...dyeSentences(d, own))
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      problems.push(`${watched}: ${error.message}`)
    }
  }
  return { figures, sentences: [...sentences, ...problems.map((p) => [p])] }
}

/** What one dye point says, in words. */
export function dyeSentences(d: DyePoint, figures: readonly Figure[]): Sentence[] {
  const f = (id: string) => figures.find((x) => x.id.endsWith(`-${id}`))
  const coloured = f('coloured')
  const mixed = f('mixed')
  if (d.mixing && coloured)
    return [
      [
        `${cap(d.point)} colours after `,
        sayFigure(coloured),
        ...(mixed
          ? [' and is mixed after ', sayFigure(mixed)]
          : ['; it had not come to an even strength when the watching ended']),
        '.',
      ],
    ]
  const mean = f('mean')
  if (!d.pulse || !mean) return []
  const dead = f('dead')
  return [
    [
      `${cap(d.point)}: the dye stays `,
      sayFigure(mean),
      ' on average',
      ...(dead ? ['; ', sayFigure(dead), ' of the volume does not take part'] : []),
      ...(d.pulse.baffling ? [`; by t10 it is ${d.pulse.baffling.label}`] : []),
      d.pulse.tail > 0.1 ? '. The tail was cut off early, so all times are too short.' : '.',
    ],
  ]
}

const cap = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1)

const holding: Finder = (trial, c) => {
  const series = [...new Set(trial.runs.map((r) => r.series ?? ''))]
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  for (const s of series) {
    const own = trial.runs.filter((r) => (r.series ?? '') === s)
    const r = holdingSurvival(own)
    const name = s || 'they'
    const still = own.filter((o) => o.outcome === 'still')
    const longest = Math.max(0, ...own.map((o) => o.seconds ?? 0))
    if (r.median !== null) {
      const median: Figure = {
        ...base(trial, c, `holding-${s}`),
        label: `Half have let go, ${name}`,
        value: r.median,
        dimension: 'time',
        provenance: 'measured',
        formula: 'S(t) = Π (1 − d/n), first t with S ≤ ½',
        working: [
          put('n', 'tried', own.length),
          put('held', 'still holding when the watch stopped', still.length),
        ],
        source: 'Kaplan and Meier 1958',
      }
      figures.push(median)
      sentences.push([`${cap(name)}: half have let go by `, sayFigure(median), '.'])
    } else
      sentences.push([
        `${cap(name)}: ${still.length} of ${own.length} still held when the watch was stopped, the longest at `,
        { si: longest, dimension: 'time' },
        '; no median can be given, and none is made up.',
      ])
  }
  return { figures, sentences }
}

/** The survival curve of a series of holding times. */
export const holdingSurvival = (runs: readonly BenchReading[]): Survival =>
  kaplanMeier(runs.map((r) => ({ seconds: r.seconds ?? 0, censored: r.outcome === 'still' })))

const PRIME_WORDS = {
  prime: ['Primed', 'Did not prime'],
  restart: ['Restarted by itself after a power cut', 'Did not restart by itself after a power cut'],
  leak: ['Leaks', 'No leak'],
  air: ['Draws air', 'Draws no air'],
  rattle: ['Rattles', 'Does not rattle'],
} as const

const prime: Finder = (trial, c) => {
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  for (const [series, [yes, no]] of Object.entries(PRIME_WORDS)) {
    const own = trial.runs.filter((r) => r.series === series)
    const last = own.at(-1)
    if (!last) continue
    const good = last.outcome === 'yes'
    const timed = own.filter((r) => r.outcome === 'yes' && (r.seconds ?? 0) > 0)
    const seconds = timed.at(-1)?.seconds ?? null
    const note = own.flatMap((r) => (r.note ? [r.note] : [])).at(-1)
    const parts: (string | Sentence[number])[] = [good ? yes : no]
    if ((series === 'prime' || series === 'restart') && good) {
      const before = own.findIndex((r) => r.outcome === 'yes')
      if (series === 'prime') parts.push(before === 0 ? ' at the first try' : ` at try ${before + 1}`)
      if (seconds !== null) {
        const figure: Figure = {
          ...base(trial, c, `${series}-seconds`),
          label: series === 'prime' ? 'Seconds to full flow' : 'Seconds to full flow after a power cut',
          value: seconds,
          dimension: 'time',
          provenance: 'measured',
          formula: 'by stopwatch, from the switch to full flow',
          working: [put('n', 'tries', own.length)],
        }
        figures.push(figure)
        parts.push(', full flow after ', sayFigure(figure))
      }
    }
    const leaked = own.reduce((s, r) => s + (r.value ?? 0), 0)
    if (series === 'leak' && good && leaked > 0) {
      const figure: Figure = {
        ...base(trial, c, 'leaked'),
        label: 'Water lost',
        value: leaked,
        dimension: 'volume',
        unit: 'mL',
        provenance: 'measured',
        formula: 'Σ caught',
        working: own.map((r, i) =>
          put(String(i + 1), r.note || 'caught', r.value ?? 0, 'volume', 'measured'),
        ),
      }
      figures.push(figure)
      parts.push(': ', sayFigure(figure))
    }
    sentences.push([...parts, note ? ` (${note}).` : '.'])
  }
  return { figures, sentences }
}

const mean = (v: readonly number[]): number | null =>
  v.length ? v.reduce((a, b) => a + b, 0) / v.length : null

const air: Finder = (trial, c) => {
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  const supplied = mean(values(trial.runs, 'supplied'))
  const riser = mean(values(trial.runs, 'riser'))
  if (supplied !== null && riser !== null && supplied > 0) {
    const leak: Figure = {
      ...base(trial, c, 'air-leak'),
      label: 'Air lost at the fitting',
      value: Math.max(0, 1 - riser / supplied),
      dimension: 'ratio',
      unit: '%',
      provenance: 'measured',
      formula: '1 − air up the riser ÷ air supplied',
      working: [
        put('riser', 'air up the riser', riser, 'flow', 'measured'),
        put('supplied', 'air supplied', supplied, 'flow', 'measured'),
      ],
    }
    figures.push(leak)
    sentences.push(
      leak.value > 0.05
        ? [sayFigure(leak), ' of the air leaves beside the riser and lifts no water.']
        : ['The fitting holds: ', sayFigure(leak), ' of the air is lost.'],
    )
  }
  const { riserDiameter, submergence } = trial.setup ?? {}
  const points = trial.runs.filter((r) => r.series === 'water' && r.volume && r.seconds)
  if (points.length && riserDiameter && submergence) {
    const share = supplied && riser ? riser / supplied : 1
    const model = airliftAgainst(
      { diameter: riserDiameter, submergence, lift: Math.max(0, trial.lift) },
      points.map((p) => ({ air: (p.value ?? 0) * share, water: (p.volume ?? 0) / (p.seconds ?? 1) })),
    )
    const figure: Figure = {
      ...base(trial, c, 'airlift-ratio'),
      label: 'Water lifted, against the airlift model',
      value: model.ratio,
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      formula: 'Σ measured ÷ Σ computed',
      working: model.points.map((p, i) =>
        put(`Q${i + 1}`, 'model, at the same air', p.model, 'flow', 'computed'),
      ),
      source: 'drift flux, Nicklin 1962; momentum balance, Clark and Dabolt 1986',
    }
    figures.push(figure)
    sentences.push([
      'It lifts ',
      sayFigure(figure),
      ' of what the airlift model gives for this riser and air.',
    ])
  }
  const most = points.reduce<BenchReading | null>(
    (best, p) =>
      best && (best.volume ?? 0) / (best.seconds ?? 1) >= (p.volume ?? 0) / (p.seconds ?? 1) ? best : p,
    null,
  )
  if (most) {
    const flow: Figure = {
      ...base(trial, c, 'air-most'),
      label: 'Most water lifted',
      value: (most.volume ?? 0) / (most.seconds ?? 1),
      dimension: 'flow',
      provenance: 'measured',
      formula: 'Q = V/t',
      working: [
        put('V', 'vessel', most.volume ?? 0, 'volume', 'measured'),
        put('t', 'seconds', most.seconds ?? 0, 'time', 'measured'),
        put('air', 'air supplied', most.value ?? 0, 'flow', 'measured'),
      ],
    }
    figures.push(flow)
    sentences.push([
      'Most water lifted: ',
      sayFigure(flow),
      ' with ',
      { si: most.value ?? 0, dimension: 'flow' },
      ' of air.',
    ])
  }
  return { figures, sentences }
}

const meterCheck: Finder = (trial, c) => {
  const r = calibration(trial)
  const inUse = trial.setup?.kFactor ?? USUAL_SETUP.kFactor
  const k: Figure = {
    ...base(trial, c, 'k-factor'),
    label: 'Meter factor, pulses per litre',
    value: r.factor / 1000,
    dimension: 'ratio',
    provenance: 'measured',
    uncertainty: (2 * Math.hypot(r.standardUncertainty, r.factor * trial.method.vessel)) / 1000,
    formula: 'K = Σ V N ÷ Σ V²',
    working: trial.runs.map((run, i) => put(`N${i + 1}`, 'pulses', run.value ?? 0, 'ratio', 'measured')),
    source: 'least squares through the origin',
  }
  const off = inUse / r.factor - 1
  const apart: Figure = {
    ...base(trial, c, 'k-off'),
    label: 'Factor in use against this check',
    value: Math.abs(off),
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: '|K in use ÷ K − 1|',
    working: [put('K in use', 'pulses per litre', inUse / 1000), putFigure('K', k)],
  }
  const wrong = Math.abs(inUse / 1000 - k.value) > (k.uncertainty ?? 0)
  return {
    figures: [k, apart],
    sentences: [
      wrong
        ? [
            'The meter is set to the wrong factor: ',
            sayFigure(apart),
            ` ${off > 0 ? 'too high, so its flows read low' : 'too low, so its flows read high'}. Set it to `,
            sayFigure(k),
            '.',
          ]
        : ['The factor in use agrees with this check.'],
    ],
  }
}

/** The meter factor of a calibration trial. @throws OutOfRange with fewer than two checks. */
export const calibration = (trial: TrialRecord): MeterFactor =>
  meterFactor(trial.runs.map((r) => ({ pulses: r.value ?? 0, volume: r.volume ?? 0 })))

const shutOff: Finder = (trial, c) => {
  const heads = values(trial.runs)
  const s = summary(heads)
  const figure: Figure = {
    ...base(trial, c, 'shut-off'),
    label: 'Height at which the flow stops',
    value: s.mean,
    dimension: 'head',
    provenance: 'measured',
    uncertainty: 2 * Math.hypot(0.01, s.deviation / Math.sqrt(s.n)),
    formula: 'mean of the heights;  U = 2 · √(u_tape² + u_A²)',
    working: heads.map((h, i) => put(`H${i + 1}`, 'height', h, 'head', 'measured')),
    source: 'GUM, JCGM 100:2008; tape and eye 10 mm',
  }
  const claim = c.model.claims.find((q) => q.quantity === 'max-head')
  return {
    figures: [figure],
    sentences: claim
      ? [['The flow stops at ', sayFigure(figure), '; the label says ', sayFigure(printedFigure(claim)), '.']]
      : [],
  }
}

const FINDERS: Partial<Record<NonNullable<TrialRecord['kind']>, Finder>> = {
  power,
  noise,
  dye,
  holding,
  prime,
  air,
  'meter-check': meterCheck,
  'shut-off': shutOff,
}

/** Pairs of flow trials under the same conditions that disagree beyond both uncertainties: a meter with the wrong factor shows here. */
export function disagreements(flows: readonly TrialResult[]): readonly Sentence[] {
  const out: Sentence[] = []
  flows.forEach((a, i) =>
    flows.slice(i + 1).forEach((b) => {
      const [ka, kb] = [a.trial.kind ?? 'vessel', b.trial.kind ?? 'vessel']
      const same =
        ka !== kb &&
        a.trial.state === b.trial.state &&
        a.trial.hookupId === b.trial.hookupId &&
        Math.abs(a.trial.lift - b.trial.lift) < 0.005 &&
        a.trial.mainsFrequency === b.trial.mainsFrequency
      const gap = Math.abs(a.result.mean - b.result.mean)
      if (!same || gap <= Math.hypot(a.result.expandedUncertainty, b.result.expandedUncertainty)) return
      out.push([
        `The ${KIND_SOURCE[ka] ?? ka} and the ${KIND_SOURCE[kb] ?? kb} disagree under the same conditions: `,
        sayFigure(a.figure),
        ' and ',
        sayFigure(b.figure),
        '. One of them is wrong; a meter’s factor is the first thing to check.',
      ])
    }),
  )
  return out
}

const KIND_SOURCE: Partial<Record<NonNullable<TrialRecord['kind']>, string>> = {
  vessel: 'vessel',
  weighed: 'scale',
  meter: 'flow meter',
  read: 'figure read off',
}
