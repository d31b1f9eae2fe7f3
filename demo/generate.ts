import {
  BodyCreate,
  ChamberCreate,
  chamberColumns,
  ClaimCreate,
  ContentItemCreate,
  PartCreate,
  HookupCreate,
  ModelCreate,
  ReadingCreate,
  SpecimenCreate,
  TankCreate,
  TrialCreate,
  type Tank,
} from '@ypsometer/contract'
import { dutyPoint, pumpFlow, type Segment } from '@ypsometer/core/hydraulics'
import { seeded, seededNormal } from '@ypsometer/core/statistics'
import { PART_KINDS, printedItems, CHECKLISTS } from '@ypsometer/core/teardown'
import { templateChambers, USUAL_BODY, volumeAudit, type Chamber as Interior } from '@ypsometer/core/volumes'
import { waterProperties } from '@ypsometer/core/water'
import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { format } from 'prettier'
import type { z } from 'zod'
import type { DemoBundle } from './index'
import { TANKS } from './tanks'
import { TRUTHS, type Truth } from './truth'

/** The same id for the same name, every time. */
function idOf(name: string): string {
  const h = createHash('sha256').update(`demo:${name}`).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`
}

const normal = seededNormal(4680)
const START = Date.UTC(2026, 8, 7, 8, 0, 0)
let minutes = 0
const clock = (step: number): string => new Date(START + (minutes += step) * 60000).toISOString()

type TrialRow = z.infer<typeof TrialCreate> & { createdAt: string }

/** Timed runs of a vessel at a true flow: reaction of the hand, a mark that is read a little off, uneven pouring. */
function runs(
  trialId: string,
  trueFlow: number,
  litres: number,
  count: number,
): z.infer<typeof ReadingCreate>[] {
  return Array.from({ length: count }, (_, i) => {
    const volume = litres / 1000
    const filled = volume * (1 + 0.004 * normal())
    const seconds = filled / (trueFlow * (1 + 0.008 * normal())) + 0.12 * normal()
    return ReadingCreate.parse({
      id: idOf(`${trialId}-${i}`),
      trialId,
      takenAt: clock(2),
      volume,
      seconds: Math.round(seconds * 100) / 100,
    })
  })
}

/** True flow on a circuit: the pump, its lift, the hose run, and what the media cost in a 16 mm bore. */
function trueFlow(
  t: Truth,
  lift: number,
  segments: readonly Segment[],
  mediaLoss: number,
  temperature: number,
): number {
  if (!t.pump) return (t.lifted ?? 0) / 3.6e6
  const media: Segment = {
    kind: 'fitting',
    id: 'media',
    label: 'Media',
    lossCoefficient: mediaLoss,
    diameter: 0.016,
    count: 1,
  }
  return dutyPoint({
    pump: t.pump,
    segments: mediaLoss ? [...segments, media] : segments,
    staticHead: lift,
    fluid: { kinematicViscosity: waterProperties({ temperature }).kinematicViscosity },
  }).flow
}

function claims(t: Truth, modelId: string) {
  const { label } = t
  const row = (quantity: string, value: number | undefined, typed: string, hertz: 50 | null = null) =>
    value === undefined
      ? []
      : [
          ClaimCreate.parse({
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
    ...row('power', label.power, `${label.power} W`, t.pump ? 50 : null),
    ...row('tank-min', label.tankMin / 1000, `${label.tankMin} L`),
    ...row('tank-max', label.tankMax / 1000, `${label.tankMax} L`),
    ...row(
      'media-volume',
      label.mediaVolume === undefined ? undefined : label.mediaVolume / 1000,
      `${label.mediaVolume} L`,
    ),
    ...row('noise', label.noise, `${label.noise} dB`),
    ClaimCreate.parse({
      id: idOf(`${modelId}-price`),
      modelId,
      quantity: 'price',
      amountMinor: label.priceMinor,
      currency: 'EUR',
      printedOn: 'shelf tag',
    }),
    ClaimCreate.parse({
      id: idOf(`${modelId}-contents`),
      modelId,
      quantity: 'contents',
      words: label.contents,
      printedOn: 'box',
    }),
    ...(label.guarantee
      ? [
          ClaimCreate.parse({
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

/** Outside sizes (m) and empty weight (kg) of the bench units; others have their kind's usual body. */
const BODIES: Readonly<
  Record<string, readonly [width: number, depth: number, height: number, empty: number]>
> = {
  'Ledger 700': [0.16, 0.16, 0.36, 2.6],
  'Torrent 1400': [0.18, 0.18, 0.42, 2.9],
  'Plainbody 1000': [0.19, 0.19, 0.4, 2.5],
  'Terrace 1200': [0.21, 0.21, 0.43, 3.4],
  'Undercroft 90': [0.6, 0.3, 0.36, 12.5],
}
const EMPTY = {
  canister: 2.8,
  'hang-on-back': 0.9,
  internal: 0.6,
  'motor-sponge': 0.3,
  'air-sponge': 0.2,
  'air-box': 0.18,
  fluidised: 0.4,
  sump: 12,
} as const

/** The interior as it was measured: the kind's chambers to this body, and the water the whole of it held. */
function interior(t: Truth, modelId: string) {
  const [w, d, h] = BODIES[t.name] ?? USUAL_BODY[t.kind]
  const empty = BODIES[t.name]?.[3] ?? EMPTY[t.kind]
  const chambers: readonly Interior[] = templateChambers(
    t.kind,
    { width: w, depth: d, height: h },
    (n) => n,
  ).map((c) => ({
    ...c,
    measured: true,
    // The Terrace's trays stand 2 mm off the wall on both long sides.
    ...(t.name === 'Terrace 1200' &&
      c.role === 'tray' &&
      c.solid.shape === 'box' && {
        solid: { ...c.solid, depth: Math.round((c.solid.depth - 0.004) * 1000) / 1000 },
      }),
  }))
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
      BodyCreate.parse({
        ...outside,
        id: idOf(`${modelId}-body`),
        modelId,
        waterFill,
        fullMass: Math.round((empty + waterFill * 1040) * 100) / 100,
        ...(t.kind === 'canister' && { heightWithHoses: Math.round((h + 0.07) * 1000) / 1000 }),
        ...(t.kind === 'hang-on-back' && { overhang: d + 0.015 }),
      }),
    ],
    chambers: chambers.map((c, i) =>
      ChamberCreate.parse({
        id: idOf(`${modelId}-chamber-${i}`),
        modelId,
        position: i + 1,
        ...chamberColumns(c),
        perforated: c.role === 'tray' ? 0.35 : null,
      }),
    ),
  }
}

const uniform = seeded(90)

/** The strip log: usual parts in their order, with times a hand takes and conditions as found. */
function stripLog(t: Truth, modelId: string) {
  const parts = PART_KINDS[t.kind].map((p, i) => {
    const moves = 1 + Math.floor(uniform() * 3) + (p.fixing === 'screw' ? 3 : 0)
    const findings = CHECKLISTS.find((c) => c.id === p.checklist)?.findings ?? []
    const worn = t.obtained === 'second-hand' ? 0.45 : 0.08
    const found =
      p.reach !== 'media' && uniform() < worn
        ? findings[1 + Math.floor(uniform() * (findings.length - 1))]
        : findings[0]
    return PartCreate.parse({
      id: idOf(`${modelId}-part-${i}`),
      modelId,
      position: i + 1,
      name: p.name,
      job: p.job,
      material: p.material,
      fixing: p.fixing,
      moves,
      seconds: Math.round((2 + moves * (2.5 + 3 * uniform())) * 10) / 10,
      reach: p.reach ?? null,
      checklist: p.checklist,
      findings: found ? [found.id] : [],
      ...(['Impeller', 'Main O-ring', 'Cartridge', 'Shaft'].includes(p.name) && {
        sparePriceMinor: 390 + Math.floor(uniform() * 12) * 50,
        spareCurrency: 'EUR',
      }),
    })
  })
  const printed = printedItems(t.label.contents)
  const contents = printed.map((name, i) =>
    ContentItemCreate.parse({
      id: idOf(`${modelId}-content-${i}`),
      modelId,
      position: i + 1,
      name,
      found: t.name === 'Plainbody 1000' && i === printed.length - 1 ? 'missing' : 'present',
    }),
  )
  return { parts, contents }
}

function model(t: Truth): DemoBundle['models'][number] {
  const modelId = idOf(`${t.maker} ${t.name}`)
  const specimenId = idOf(`${modelId}-specimen`)
  const hookupId = idOf(`${modelId}-hookup`)
  clock(60 * 24 * 3)
  const trials: TrialRow[] = []
  const readings: z.infer<typeof ReadingCreate>[] = []
  const bench = (state: string, lift: number, attached: boolean, mediaLoss: number, count: number): void => {
    const id = idOf(`${modelId}-${state}-${lift}-${attached}`)
    const temperature = 21.5
    trials.push({
      ...TrialCreate.parse({
        id,
        modelId,
        specimenId,
        hookupId: attached ? hookupId : null,
        state,
        lift,
        waterTemperature: temperature,
        vesselVolume: t.vessel / 1000,
        typed: { vesselVolume: `${t.vessel} L` },
      }),
      createdAt: clock(6),
    })
    readings.push(
      ...runs(
        id,
        trueFlow(t, lift, attached ? t.hookup.segments : [], mediaLoss, temperature),
        t.vessel,
        count,
      ),
    )
  }
  const fixed = Math.max(0, t.hookup.outletAboveWater) + (t.hookup.sourceBelowWater ?? 0)
  bench('empty', 0, false, 0, 5)
  for (const lift of t.lifts ?? [])
    if (t.pump && pumpFlow(lift, t.pump) > 0) bench('empty', lift, false, 0, 3)
  bench('as-shipped', fixed, true, t.mediaLoss?.shipped ?? 0, 5)
  if (t.mediaLoss?.proposed !== undefined) bench('proposed', fixed, true, t.mediaLoss.proposed, 5)
  return {
    model: ModelCreate.parse({ id: modelId, maker: t.maker, name: t.name, kind: t.kind, note: t.note }),
    claims: claims(t, modelId),
    specimens: [
      SpecimenCreate.parse({
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
        mediaMass: t.mediaMass,
        ...(t.mediaMass !== null && { typed: { mediaMass: `${t.mediaMass} kg` } }),
      }),
    ],
    hookups: [
      HookupCreate.parse({
        id: hookupId,
        modelId,
        name: t.hookup.name,
        outletAboveWater: t.hookup.outletAboveWater,
        sourceBelowWater: t.hookup.sourceBelowWater ?? 0,
        bodyBelowWater: t.hookup.bodyBelowWater ?? 0,
        segments: t.hookup.segments,
      }),
    ],
    trials,
    readings,
    ...interior(t, modelId),
    ...stripLog(t, modelId),
  }
}

const bundle: DemoBundle = {
  models: TRUTHS.map(model),
  tanks: TANKS.map((t) => TankCreate.parse({ id: idOf(`tank-${t.name}`), ...(t as Partial<Tank>) })),
}
const here = dirname(fileURLToPath(import.meta.url))
writeFileSync(
  join(here, 'saltery-row.json'),
  await format(JSON.stringify(bundle), { parser: 'json', printWidth: 200 }),
)
console.log(
  `${bundle.models.length} models, ${bundle.models.reduce((n, m) => n + m.readings.length, 0)} runs, ${bundle.tanks.length} tanks`,
)
