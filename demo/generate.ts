import {
  ClaimCreate,
  HookupCreate,
  ModelCreate,
  ReadingCreate,
  SpecimenCreate,
  TankCreate,
  TrialCreate,
  type Tank,
} from '@ypsometer/contract'
import { dutyPoint, pumpFlow, type Segment } from '@ypsometer/core/hydraulics'
import { seededNormal } from '@ypsometer/core/statistics'
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
