import { chamberColumns, RESOURCES, type Tank, type CreatedOf } from '@ypsometer/contract'
import { placeFill } from '@ypsometer/core/fills/place'
import { weighFill } from '@ypsometer/core/fills/weigh'
import { pumpFlow } from '@ypsometer/core/hydraulics/pump'
import { seeded, seededNormal } from '@ypsometer/core/statistics/random'
import { partsOf } from '@ypsometer/core/teardown/catalogue'
import { printedItems } from '@ypsometer/core/teardown/reach'
import { CHECKLISTS } from '@ypsometer/core/parts/vocabulary'
import { underneath } from '@ypsometer/core/parts/partKind'
import { UNMEASURED_BODY, volumeAudit } from '@ypsometer/core/volumes/interior'
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { format } from 'oxfmt'
import type { DemoBundle } from './index'
import { BENCH_MEDIA, fillsOf, HOUSE_CARTRIDGE } from './fills'
import { idOf, NOTED_ON } from './ids'
import { bodyOf, chambersOf, modelIdOf } from './interior'
import { airTruth, trueAirlift, trueDuty, usualAir, type OnTheBench } from './physics'
import { OUTLETS } from './outlets'
import { TANKS } from './tanks'
import { TRUTHS, type Truth } from './truth'
import { changesOf, faultsOf, placedOf, setUpsOf } from './hands'
import { ticksOf, visitsOf } from './visits'

const normal = seededNormal(4680)
const START = Date.UTC(2026, 8, 7, 8, 0, 0)
let minutes = 0
const clock = (step: number): string => new Date(START + (minutes += step) * 60000).toISOString()

type TrialRow = CreatedOf<'trials'> & { createdAt: string }

/** Timed runs of a vessel at a true flow: reaction of the hand, a mark that is read a little off, uneven pouring. */
function runs(trialId: string, trueFlow: number, litres: number, count: number): CreatedOf<'readings'>[] {
  return Array.from({ length: count }, (_, i) => {
    const volume = litres / 1000
    const filled = volume * (1 + 0.004 * normal())
    const seconds = filled / (trueFlow * (1 + 0.008 * normal())) + 0.12 * normal()
    return RESOURCES.readings.Create.parse({
      id: idOf(`${trialId}-${i}`),
      trialId,
      takenAt: clock(2),
      volume,
      seconds: Math.round(seconds * 100) / 100,
    })
  })
}

function claims(t: Truth, modelId: string) {
  const { label } = t
  const row = (quantity: string, value: number | undefined, typed: string, hertz: 50 | null = null) =>
    value === undefined
      ? []
      : [
          RESOURCES.claims.Create.parse({
            id: idOf(`${modelId}-${quantity}`),
            modelId,
            quantity,
            value,
            mainsFrequency: hertz,
            printedOn: 'box',
            typed: { value: typed },
          }),
        ]
  return [
    ...row('rated-flow', label.flow / 3.6e6, `${label.flow} L/h`, t.pump ? 50 : null),
    ...row('max-head', label.head, `${label.head} m`, t.pump ? 50 : null),
    ...(label.manualHead
      ? [
          RESOURCES.claims.Create.parse({
            id: idOf(`${modelId}-max-head-inside`),
            modelId,
            quantity: 'max-head',
            value: label.manualHead,
            mainsFrequency: 50,
            printedOn: 'manual',
            typed: { value: `${label.manualHead} m` },
          }),
        ]
      : []),
    ...row('power', label.power, `${label.power} W`, t.pump ? 50 : null),
    ...row('tank-min', label.tankMin / 1000, `${label.tankMin} L`),
    ...row('tank-max', label.tankMax / 1000, `${label.tankMax} L`),
    ...row(
      'media-volume',
      label.mediaVolume === undefined ? undefined : label.mediaVolume / 1000,
      `${label.mediaVolume} L`,
    ),
    ...row('noise', label.noise, `${label.noise} dB`),
    RESOURCES.claims.Create.parse({
      id: idOf(`${modelId}-price`),
      modelId,
      quantity: 'price',
      amountMinor: label.priceMinor,
      currency: 'EUR',
      pricedOn: NOTED_ON,
      printedOn: 'shelf tag',
    }),
    RESOURCES.claims.Create.parse({
      id: idOf(`${modelId}-contents`),
      modelId,
      quantity: 'contents',
      words: label.contents,
      printedOn: 'box',
    }),
    ...(label.guarantee
      ? [
          RESOURCES.claims.Create.parse({
            id: idOf(`${modelId}-guarantee`),
            modelId,
            quantity: 'guarantee',
            words: label.guarantee,
            printedOn: 'manual',
          }),
        ]
      : []),
  ]
}

/** The body with the water it held and its chambers as rows. */
function interior(t: Truth, modelId: string) {
  const [w, d, h, empty] = bodyOf(t)
  const chambers = chambersOf(t)
  const outside = {
    outerWidth: w,
    outerDepth: d,
    outerHeight: h,
    waterFill: null,
    emptyMass: empty,
    fullMass: null,
  }
  const gross = volumeAudit(chambers, outside).gross
  const waterFill = Math.round(gross * (1 + 0.004 * normal()) * 1e5) / 1e5
  return {
    bodies: [
      RESOURCES.bodies.Create.parse({
        ...outside,
        id: idOf(`${modelId}-body`),
        modelId,
        waterFill,
        fullMass: Math.round((empty + waterFill * 1040) * 100) / 100,
        ...(t.kind === 'canister' && { heightWithHoses: Math.round((h + 0.07) * 1000) / 1000 }),
        ...(t.kind === 'hang-on-back' && { overhang: d + 0.015, hookOpening: 0.014, intakeReach: 0.26 }),
      }),
    ],
    chambers: chambers.map((c, i) =>
      RESOURCES.chambers.Create.parse({
        id: c.id,
        modelId,
        position: i + 1,
        ...chamberColumns(c),
        perforated: c.role === 'tray' ? 0.35 : null,
      }),
    ),
  }
}

const none = {
  paid: false,
  signed: false,
  affiliate: false,
  free: false,
  representative: false,
  previewed: false,
} as const
/** Notes on some units; of the others nobody took any. */
const DISCLOSED: Readonly<Record<string, typeof none | Record<keyof typeof none, boolean | null>>> = {
  'Ledger 700': none,
  'Plainbody 1000': { ...none, affiliate: true, previewed: null },
  'Terrace 1200': { ...none, free: true, representative: true },
}

const uniform = seeded(90)

/** The strip log: usual parts in their order, with times a hand takes and conditions as found. */
function stripLog(t: Truth, modelId: string) {
  const kinds = partsOf(t.kind)
  const idAt = (i: number): string => idOf(`${modelId}-part-${i}`)
  const parts = kinds.map((p, i) => {
    const moves = 1 + Math.floor(uniform() * 3) + (p.fixing === 'screw' ? 3 : 0)
    const findings = CHECKLISTS.find((c) => c.id === p.checklist)?.findings ?? []
    const worn = t.obtained === 'second-hand' ? 0.45 : 0.08
    const found =
      p.reach !== 'media' && uniform() < worn
        ? findings[1 + Math.floor(uniform() * (findings.length - 1))]
        : findings[0]
    return RESOURCES.parts.Create.parse({
      id: idAt(i),
      modelId,
      position: i + 1,
      name: p.name,
      job: p.job,
      material: p.material,
      fixing: p.fixing,
      moves,
      seconds: Math.round((2 + moves * (2.5 + 3 * uniform())) * 10) / 10,
      after: underneath(
        p,
        kinds.slice(0, i).map((k, j) => ({ id: idAt(j), name: k.name })),
      ),
      ...(p.reach && {
        cleaning: p.reach === 'media' ? 60 : p.reach === 'impeller' ? 40 : 90,
        back: Math.round(2 + moves * 4),
      }),
      reach: p.reach ?? null,
      checklist: p.checklist,
      findings: found ? [found.id] : [],
      ...placedOf(t.name, p.name),
      ...(['Impeller', 'Main O-ring', 'Cartridge', 'Shaft'].includes(p.name) && {
        sparePriceMinor: 390 + Math.floor(uniform() * 12) * 50,
        spareCurrency: 'EUR',
        sparePricedOn: NOTED_ON,
      }),
    })
  })
  const printed = printedItems(t.label.contents)
  const contents = printed.map((name, i) =>
    RESOURCES.contents.Create.parse({
      id: idOf(`${modelId}-content-${i}`),
      modelId,
      position: i + 1,
      name,
      found: t.name === 'Plainbody 1000' && i === printed.length - 1 ? 'missing' : 'present',
    }),
  )
  return { parts, contents }
}

/** Chance of its own, so that the flows stay what they were. */
const wobble = seededNormal(1877)
const chance = seeded(1878)

type Readings = Partial<CreatedOf<'readings'>>

const rounded = (v: number, digits: number): number => Number(v.toFixed(digits))

/** Notes a trial with its readings. */
type Note = (
  kind: CreatedOf<'trials'>['kind'],
  more: Partial<CreatedOf<'trials'>>,
  list: readonly Readings[],
) => void
/** State of a filter as it is installed. */
type Loaded = { readonly state: 'as-shipped'; readonly hookupId: string; readonly lift: number }
/** Water of the bench (°C). */
const BENCH_WATER = 21.5

/** Height at which it stops, watts, priming. */
function noteOfPump(t: Truth, loaded: Loaded, note: Note): void {
  if (t.pump) {
    const head = t.pump.shutOffHead
    note(
      'shut-off',
      { state: 'empty' },
      Array.from({ length: 3 }, () => ({ value: rounded(head + 0.008 * wobble(), 3) })),
    )
    const duty = trueDuty(t, { ...loaded, attached: true, temperature: BENCH_WATER })
    const watts = (t.label.power ?? 5) * 1.06 * (0.72 + 0.28 * (duty.flow / t.pump.maxFlow))
    note(
      'power',
      { ...loaded, setup: { relative: 0.01, pricePerKwhMinor: 31, currency: 'EUR' } },
      Array.from({ length: 5 }, () => ({ value: rounded(watts * (1 + 0.006 * wobble()), 2) })),
    )
    note('prime', { ...loaded }, [
      ...(t.name === 'Plainbody 1000'
        ? [{ series: 'prime', outcome: 'no', seconds: 60, note: 'air in the pump head' }]
        : []),
      { series: 'prime', outcome: 'yes', seconds: rounded(14 + 6 * chance(), 1) },
      { series: 'restart', outcome: 'yes', seconds: rounded(6 + 4 * chance(), 1) },
      t.name === 'Terrace 1200'
        ? {
            series: 'leak',
            outcome: 'yes',
            seconds: 0,
            value: 18e-6,
            note: 'at the left clip, in the first night',
          }
        : { series: 'leak', outcome: 'no', seconds: 0 },
      { series: 'rattle', outcome: t.name === 'Gale HB' ? 'yes' : 'no', seconds: 0 },
    ])
  }
}

/** The noise of it over that of the room. */
function noteNoise(t: Truth, loaded: Loaded, note: Note): void {
  const room = 31
  const own = (t.label.noise ?? 33) + 4
  const both = 10 * Math.log10(10 ** (room / 10) + 10 ** (own / 10))
  note('noise', { ...loaded, setup: { distance: 1, position: 'seat height, in front' } }, [
    ...Array.from({ length: 3 }, () => ({ series: 'with', value: rounded(both + 0.4 * wobble(), 1) })),
    ...Array.from({ length: 3 }, () => ({ series: 'without', value: rounded(room + 0.4 * wobble(), 1) })),
  ])
}

/** How long cups and clips hold. */
function noteHolding(t: Truth, note: Note): void {
  if (t.kind === 'internal' || t.kind === 'motor-sponge')
    note('holding', { state: 'as-shipped', setup: { load: 'its own weight, wet' } }, [
      ...[42, 118, 260, 75].map((s) => ({
        series: 'cups',
        outcome: 'let-go',
        seconds: rounded(s * (1 + 0.1 * wobble()), 1),
      })),
      { series: 'cups', outcome: 'still', seconds: 600 },
      { series: 'clips', outcome: 'still', seconds: 600 },
      { series: 'clips', outcome: 'still', seconds: 600 },
    ])
}

/** Water lifted by air. */
function noteAir(t: Truth, note: Note): void {
  const air = airTruth(t)
  const usual = usualAir(t)
  if (air)
    note(
      'air',
      {
        state: 'as-shipped',
        lift: air.lift,
        setup: { riserDiameter: air.diameter, submergence: air.submergence, stone: 'open tube' },
      },
      [
        ...[0.7, 1, 1.6].map((share) => {
          const supplied = usual * share
          const seconds = t.vessel / 1000 / trueAirlift(air, supplied)
          return {
            series: 'water',
            value: supplied,
            volume: t.vessel / 1000,
            seconds: rounded(Math.max(1, seconds * (1 + 0.02 * wobble())), 2),
          }
        }),
        ...[0, 1].map(() => ({ series: 'supplied', value: usual * (1 + 0.01 * wobble()) })),
        ...[0, 1].map(() => ({
          series: 'riser',
          value: usual * (1 - air.leak) * (1 + 0.01 * wobble()),
        })),
      ],
    )
}

/** Dye on two sides of a tank. */
function noteDye(t: Truth, loaded: Loaded, note: Note): void {
  if (['Torrent 1400', 'Triptych 600'].includes(t.name)) {
    const tau = t.name === 'Torrent 1400' ? 48 : 65
    const rise = (delay: number, seconds: number): number =>
      Math.max(
        0,
        Math.min(10, Math.round(8 * (1 - Math.exp(-Math.max(0, seconds - delay) / tau)) + 0.3 * wobble())),
      )
    note(
      'dye',
      { ...loaded, setup: { points: ['return side', 'far corner'], volume: 0.16 } },
      [5, 15, 25, 40, 60, 80, 110, 150, 200, 260].flatMap((s) => [
        { series: 'return side', seconds: s, value: rise(4, s) },
        { series: 'far corner', seconds: s + 2, value: rise(26, s) },
      ]),
    )
  }
}

/** A water test, and how clear it was. */
function noteWater(t: Truth, loaded: Loaded, note: Note): void {
  if (t.name === 'Triptych 600') {
    note('water-test', { ...loaded, setup: { readBy: 'card', countedAs: 'ion' } }, [
      { series: 'ammonia', value: 0 },
      { series: 'nitrite', value: 0 },
      { series: 'nitrate', value: 20e-3 },
      { series: 'ph', value: 7.6 },
      { series: 'temperature', value: 24 },
    ])
    note('clarity', { ...loaded, setup: { spot: 'seat by the door, lights on' } }, [
      { series: 'before', outcome: 'rated', value: 4 },
      { series: 'minutes', outcome: 'rated', value: 5 },
      { series: 'morning', outcome: 'rated', value: 9 },
    ])
  }
}

/** Everything a bench notes besides flows: heights, watts, noise, priming, cups, dye, air. */
function otherTrials(
  t: Truth,
  modelId: string,
  specimenId: string,
  hookupId: string,
  fixed: number,
  trials: TrialRow[],
  readings: CreatedOf<'readings'>[],
): void {
  const note: Note = (kind, more, list) => {
    const id = idOf(`${modelId}-trial-${kind}`)
    trials.push({
      ...RESOURCES.trials.Create.parse({
        id,
        modelId,
        kind,
        specimenId,
        waterTemperature: BENCH_WATER,
        vesselVolume: t.vessel / 1000,
        ...more,
      }),
      createdAt: clock(6),
    })
    list.forEach((r, i) =>
      readings.push(
        RESOURCES.readings.Create.parse({
          id: idOf(`${id}-${i}`),
          trialId: id,
          kind,
          takenAt: clock(1),
          ...r,
        }),
      ),
    )
  }
  const loaded = { state: 'as-shipped', hookupId, lift: fixed } as const
  noteOfPump(t, loaded, note)
  noteNoise(t, loaded, note)
  noteHolding(t, note)
  noteAir(t, note)
  noteDye(t, loaded, note)
  noteWater(t, loaded, note)
}

/** Biological media as shipped, put on a kitchen scale: never quite what litres and bulk density say. */
function weighedMedia(t: Truth) {
  const fill = fillsOf(t).find((f) => f.basis === 'as-shipped')
  if (!fill || !t.weighed) return {}
  const placed = placeFill(t.kind, chambersOf(t), fill, BENCH_MEDIA)
  const { biologicalMass } = weighFill(t.kind, placed.chambers, UNMEASURED_BODY, 0)
  const mediaMass = Math.round(biologicalMass * t.weighed * 100) / 100
  return { mediaMass, mediaMassBy: 'scale', typed: { mediaMass: `${mediaMass} kg` } } as const
}

function model(t: Truth): DemoBundle['models'][number] {
  const modelId = modelIdOf(t)
  const specimenId = idOf(`${modelId}-specimen`)
  const hookupId = idOf(`${modelId}-hookup`)
  clock(60 * 24 * 3)
  const trials: TrialRow[] = []
  const readings: CreatedOf<'readings'>[] = []
  const bench = (
    state: OnTheBench['state'],
    lift: number,
    attached: boolean,
    count: number,
    fillId: string | null = null,
  ): void => {
    const id = idOf(`${modelId}-${state}-${lift}-${attached}${fillId ?? ''}`)
    const temperature = 21.5
    trials.push({
      ...RESOURCES.trials.Create.parse({
        id,
        modelId,
        specimenId,
        hookupId: attached ? hookupId : null,
        state,
        lift,
        fillId,
        waterTemperature: temperature,
        vesselVolume: t.vessel / 1000,
        typed: { vesselVolume: `${t.vessel} L` },
      }),
      createdAt: clock(6),
    })
    readings.push(
      ...runs(
        id,
        trueDuty(t, { state, lift, attached, temperature, ...(fillId && { fillId }) }).flow,
        t.vessel,
        count,
      ),
    )
  }
  const fixed = Math.max(0, t.hookup.outletAboveWater) + (t.hookup.sourceBelowWater ?? 0)
  bench('empty', 0, false, 5)
  for (const lift of t.lifts ?? []) if (t.pump && pumpFlow(lift, t.pump) > 0) bench('empty', lift, false, 3)
  const fills = fillsOf(t)
  if (t.name === 'Triptych 600') {
    // What the fine pad takes: its cartridge without it, and with it once more with the outlet raised.
    const out = fills.find((f) => f.name === 'Fine pad out')?.id ?? null
    bench('as-shipped', fixed, true, 8, out)
    bench('as-shipped', 0.2, true, 8)
  }
  bench('as-shipped', fixed, true, 5)
  if (t.pump && fills.some((f) => f.basis === 'proposed')) bench('proposed', fixed, true, 5)
  otherTrials(t, modelId, specimenId, hookupId, fixed, trials, readings)
  return {
    model: RESOURCES.models.Create.parse({
      id: modelId,
      maker: t.maker,
      name: t.name,
      kind: t.kind,
      ...(t.primedBy && { primedBy: t.primedBy }),
      ...(t.after && { kinId: idOf(`${t.maker} ${t.after}`), kinship: 'generation' }),
      offers: (t.offers ?? []).map(([kind, minor, on]) => ({ kind, minor, currency: 'EUR', on })),
      note: t.note,
    }),
    claims: claims(t, modelId),
    specimens: [
      RESOURCES.specimens.Create.parse({
        id: specimenId,
        modelId,
        label: 'Bench unit',
        obtained: t.obtained,
        obtainedOn: '2026-09-01',
        serial: `SR-${modelId.slice(0, 6).toUpperCase()}`,
        condition: t.obtained === 'second-hand' ? 'scratched, lime on the riser' : 'as new',
        state: t.obtained === 'second-hand' ? 'used' : 'new',
        ...(t.obtained === 'second-hand' && { monthsInUse: 14 }),
        checks: { seated: true, latches: true, leftover: true },
        ...(DISCLOSED[t.name] && { disclosure: DISCLOSED[t.name] }),
        ...weighedMedia(t),
      }),
    ],
    hookups: [
      RESOURCES.hookups.Create.parse({
        id: hookupId,
        modelId,
        name: t.hookup.name,
        outletAboveWater: t.hookup.outletAboveWater,
        sourceBelowWater: t.hookup.sourceBelowWater ?? 0,
        bodyBelowWater: t.hookup.bodyBelowWater ?? 0,
        segments: t.hookup.segments,
        fitted: OUTLETS[t.name] ?? {},
      }),
      ...(t.others ?? []).map((o) =>
        RESOURCES.hookups.Create.parse({ ...o, id: idOf(`${modelId}-hookup-${o.name}`), modelId }),
      ),
    ],
    trials,
    readings,
    fills: fills.map((f) => RESOURCES.fills.Create.parse({ ...f, modelId })),
    ...interior(t, modelId),
    ...stripLog(t, modelId),
    visits: [],
  }
}

const media = [RESOURCES.media.Create.parse(HOUSE_CARTRIDGE)]
const tanks = TANKS.map((t) =>
  RESOURCES.tanks.Create.parse({ id: idOf(`tank-${t.name}`), ...(t as Partial<Tank>) }),
)
const models = TRUTHS.map(model).map((m) => ({ ...m, visits: visitsOf(m, tanks) }))
const bundle: DemoBundle = {
  models,
  media,
  tanks,
  ticks: ticksOf(models, tanks),
  setUps: setUpsOf(models, tanks),
  changeOvers: changesOf(models, tanks),
  faultSearches: faultsOf(models, tanks),
}
const here = dirname(fileURLToPath(import.meta.url))
// Another place can be named, to hold what would be written against what is there.
const written = await format('saltery-row.json', JSON.stringify(bundle), { printWidth: 200 })
writeFileSync(process.argv[2] ?? join(here, 'saltery-row.json'), written.code)
console.log(
  `${bundle.models.length} models, ${bundle.models.reduce((n, m) => n + m.readings.length, 0)} runs, ${bundle.tanks.length} tanks`,
)
