import {
  modelRecord,
  RESOURCES,
  tankRecord,
  type CreatedOf,
  type Dossier,
  type Medium,
  type Tank,
  type TankFilter,
} from '@ypsometer/contract'
import { clogCase } from '@ypsometer/contract/clog'
import { forecast, type ClogRun, type Service } from '@ypsometer/core/clogging/run'
import { VALUES } from '@ypsometer/core/clogging/constants'
import { dayAfter, daysBetween } from '@ypsometer/core/days/days'
import { assess } from '@ypsometer/core/judging/assess'
import { seeded, seededNormal } from '@ypsometer/core/statistics/random'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { choresOf, roughly, type KeptFilter } from '@ypsometer/core/upkeep/plan'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import type { Dirt } from '@ypsometer/core/visits/record'
import { BENCH_MEDIA } from './fills'
import { idOf } from './ids'
import type { DemoBundle } from './index'

type Model = DemoBundle['models'][number]
const wobble = seededNormal(1914)

/**
 * Two filters that were visited for a year: one fouls as the forecast says, one is fed more than it thinks and opened
 * each month. Days after setting up, and those on which it was cleaned.
 */
const VISITED = [
  {
    model: 'Ledger 700',
    tank: 'Dentist, front window',
    fill: 'as-shipped',
    pace: 0.97,
    days: [1, 14, 31, 89, 178, 340],
    cleaned: [31, 89, 178, 340],
  },
  {
    model: 'Plainbody 1000',
    tank: 'Ferry café, counter',
    fill: 'proposed',
    pace: 1.75,
    days: [1, 14, 28, 60, 90, 119, 148, 180, 211, 242, 273, 305, 340],
    // The last time it was left as it was found: its ring was on order.
    cleaned: [28, 60, 90, 119, 148, 180, 211, 242, 273, 305],
  },
] as const

const rowOf = <T extends object>(row: T) => ({
  version: 1,
  createdAt: '',
  updatedAt: '',
  deletedAt: null,
  ...row,
})

/** Timed runs at a flow (m³/s): a vessel of 5 L, a thumb. */
const timed = (flow: number) =>
  [0, 1, 2].map(() => ({
    volume: 0.005,
    seconds: Math.round((0.005 / (flow * (1 + 0.012 * wobble()))) * 100) / 100,
  }))

/**
 * Water tests of tanks that were not visited otherwise: the model they are noted with, the tank, days after it came,
 * and what a kit showed (mg/L as N).
 */
const TESTED = [
  { model: 'Bellows S2', tank: 'Dentist, children’s corner', days: [60, 140], ammonia: 0, nitrite: 0 },
  { model: 'Bellows S2', tank: 'Vet, quarantine', days: [45], ammonia: 0.25, nitrite: 0.1 },
  { model: 'Triptych 600', tank: 'Optician, corner', days: [60], ammonia: 0.25, nitrite: 0.1 },
  { model: 'Coracle A1', tank: 'Ferry café, shrimp', days: [70, 150], ammonia: 0, nitrite: 0 },
  { model: 'Undercroft 90', tank: 'Ferry hall, long tank', days: [60, 130], ammonia: 0, nitrite: 0 },
  { model: 'Torrent 1400', tank: 'Museum lobby, column', days: [55, 100], ammonia: 0.25, nitrite: 0.1 },
  { model: 'Gale HB', tank: 'Museum, bowed front', days: [60, 120], ammonia: 0, nitrite: 0 },
  { model: 'Torrent 1400', tank: 'Museum, turtle pond', days: [90, 180], ammonia: 0.5, nitrite: 0.25 },
  { model: 'Terrace 1200', tank: 'Notary, reef', days: [80, 200], ammonia: 0, nitrite: 0 },
] as const

/** Kit readings of a tank on some days, and nothing else. */
function testsOf(m: Model, tanks: DemoBundle['tanks']): CreatedOf<'visits'>[] {
  return TESTED.filter((t) => t.model === m.model.name).flatMap((t) => {
    const tank = tanks.find((x) => x.name === t.tank)
    const since = tank?.filters?.find((f) => f.modelId === m.model.id)?.since
    if (!tank || !since) return []
    return t.days.map((day) =>
      RESOURCES.visits.Create.parse({
        id: idOf(`${m.model.id}-test-${tank.id}-${day}`),
        modelId: m.model.id,
        tankId: tank.id,
        on: dayAfter(since, day),
        ammonia: t.ammonia * 1e-3,
        nitrite: t.nitrite * 1e-3,
        note: 'Water test only.',
      }),
    )
  })
}

/** Findings of a year’s visits, and the water tests of tanks that were not visited otherwise. */
export const visitsOf = (m: Model, tanks: DemoBundle['tanks']): CreatedOf<'visits'>[] => [
  ...visitedYear(m, tanks),
  ...testsOf(m, tanks),
]

function visitedYear(m: Model, tanks: DemoBundle['tanks']): CreatedOf<'visits'>[] {
  const visited = VISITED.find((v) => v.model === m.model.name)
  const tank = tanks.find((t) => t.name === visited?.tank)
  const fill = m.fills.find((f) => f.basis === visited?.fill)
  const since = tank?.filters?.find((f) => f.modelId === m.model.id)?.since
  if (!visited || !tank || !fill || !since) return []
  const media = BENCH_MEDIA as unknown as Medium[]
  const d = { logs: [], photos: [], ...m } as unknown as Dossier
  const stock = STOCK_CLASSES.find((c) => c.id === tank.stockClassId)
  if (!stock) return []
  const c = clogCase(d, media, assess(modelRecord(d, media)), {
    tank: tankRecord(rowOf(tank) as unknown as Tank, stock),
    fillId: fill.id,
  })
  if (!c) throw new Error(`no forecast for ${m.model.name}`)
  const services: Service[] = visited.cleaned.map((day) => ({ day, layers: null, share: 0.85 }))
  const run = forecast({
    ...c,
    intake: [],
    services,
    values: { ...VALUES, solidsOfFeed: VALUES.solidsOfFeed * visited.pace },
  })
  const specimenId = m.specimens[0]?.id ?? null
  const common = { modelId: m.model.id, tankId: tank.id, specimenId, fillId: fill.id }
  const make = (
    name: string,
    more: Omit<CreatedOf<'visits'>, 'id' | 'modelId'> | object,
  ): CreatedOf<'visits'> =>
    RESOURCES.visits.Create.parse({ id: idOf(`${m.model.id}-visit-${name}`), ...common, ...more })
  const first = run.days[0]?.flow ?? 0
  return [
    make('set-up', { on: since, stage: 'set-up', runsBefore: timed(first), seeping: [], holding: 'all', note: 'Primed, no air, dry overnight on a tray.' }), // prettier-ignore
    ...visited.days.map((day) =>
      make(String(day), {
        on: dayAfter(since, day),
        ...foundOn(run, day, (visited.cleaned as readonly number[]).includes(day), m),
      }),
    ),
  ]
}

/** How a layer looks that is so full and keeps so much of its permeability. */
function looks(full: number, keeps: number): Dirt {
  if (keeps < 0.06) return 'blind'
  if (full > 0.33) return 'half'
  return full > 0.08 ? 'light' : 'clean'
}

function foundOn(run: ClogRun, day: number, cleaned: boolean, m: Model): object {
  const found = run.found.get(day) ?? run.days[day]
  const after = run.days[day]
  if (!found || !after) return {}
  const dirt = Object.fromEntries(
    run.waterways.layers.map((l, i) => {
      const { full = 0, keeps = 1 } = found.layers[i] ?? {}
      return [l.id, looks(full, keeps)]
    }),
  )
  const ring = m.parts.find((p) => p.checklist === 'o-ring')
  const impeller = m.parts.find((p) => p.reach === 'impeller')
  return {
    runsBefore: timed(found.flow),
    seeping: m.model.name === 'Plainbody 1000' && day === 340 ? ['head'] : [],
    noise: Math.round((34 + day / 60 + wobble()) * 10) / 10,
    holding: 'all',
    dirt,
    parts: {
      ...(ring && { [ring.id]: [day > 300 ? 'flat' : 'supple'] }),
      ...(impeller && { [impeller.id]: ['clean'] }),
    },
    hoses: day > 80 ? 'slime' : 'clean',
    ammonia: 0,
    nitrite: day < 20 ? 0.0002 : 0,
    nitrate: Math.round((12 + day / 120) * 10) / 1e4,
    clarity: day > 200 && day < 250 && m.model.name === 'Plainbody 1000' ? 'hazy' : 'clear',
    ...(cleaned && {
      cleaned: [{ what: 'everything', how: 'tank-water' }],
      minutes: 22 + Math.round(4 * wobble()),
      runsAfter: timed(after.flow),
    }),
    failed:
      m.model.name === 'Plainbody 1000' && day === 340
        ? [{ part: 'O-ring of the head', how: 'flat, seeps a drop an hour' }]
        : [],
  }
}

/** The day the demo stands at, and the share of an interval after which the last of it was done. */
const STANDS_AT = '2026-11-26'
const LATEST = 1.12

/** When each piece of work was done last: most of it within its interval, so that a few are overdue. */
export function ticksOf(models: readonly Model[], tanks: DemoBundle['tanks']): CreatedOf<'ticks'>[] {
  const draw = seeded(2611)
  return tanks.flatMap((tank) => {
    const filters = (tank.filters ?? []).flatMap((f) => keptOf(f, tank.id, models))
    return choresOf(filters, UPKEEP_RULE, STANDS_AT).flatMap((c) => {
      const ago = Math.round(draw() * LATEST * roughly(c.every))
      const on = dayAfter(STANDS_AT, -ago)
      // What has not come round since it was set up was never done.
      if (daysBetween(c.start, on) < roughly(c.every)) return []
      const minutes = Math.round(2 + draw() * (c.task === 'open' ? 24 : 5))
      const { tankId, filterId, task } = c
      const id = idOf(`tick-${tankId}-${c.key}`)
      return [RESOURCES.ticks.Create.parse({ id, tankId, filterId, task, due: on, on, minutes })]
    })
  })
}

function keptOf(f: TankFilter, tankId: string, models: readonly Model[]): KeptFilter[] {
  const m = models.find((x) => x.model.id === f.modelId)
  const kind = m?.model.kind ?? f.kind
  if (!kind) return []
  const fill = m?.fills.find((x) => x.basis === f.fill) ?? m?.fills[0]
  const media = (fill?.layers ?? []).flatMap((l) => BENCH_MEDIA.find((x) => x.id === l.mediumId) ?? [])
  const prefilter = m?.parts.some((p) => p.reach === 'pre-filter') ?? false
  return [
    { id: f.id, tankId, label: '', kind, since: f.since, media, prefilter, lamp: false, forecast: null },
  ]
}
