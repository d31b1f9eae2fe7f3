import { demoBundle } from '@ypsometer/demo'
import { modelRecord, pathRecord, type Dossier, type Medium } from '@ypsometer/contract'
import { dutyPoint, type Circuit } from '@ypsometer/core/duty/circuit'
import { assess } from '@ypsometer/core/judging/assess'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { prepareNetwork, solveNetwork, type Network } from '@ypsometer/core/network/solve'
import type { Element } from '@ypsometer/core/network/elements'
import { auditOrder, HOUSE_RULES } from '@ypsometer/core/path/audit'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { pathSensitivity } from '@ypsometer/core/path/helpful'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { readdirSync, readFileSync } from 'node:fs'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { epanet, EPANET_GRAVITY, EPANET_VISCOSITY } from '../../core/hydraulics/epanet.fixture'
import { openEpanet } from '../../core/network/epanet.fixture'
import { counter, draws } from './advice'
import { seasons } from './clogging'
import { shelfRanked } from './ranking'
import { shelfOfMany } from './shelf'
import { waits } from './waits'

/** Median time of one call in ms of each work, measured in turns so that a busy machine slows all alike. */
function times(works: readonly (() => unknown)[], rounds = 25): number[] {
  const calls = works.map((work) => {
    const until = performance.now() + 150
    let n = 0
    while (performance.now() < until) {
      work()
      n++
    }
    return Math.max(1, Math.round(n / 15))
  })
  const taken = works.map(() => [] as number[])
  for (let r = 0; r < rounds; r++)
    works.forEach((work, w) => {
      const n = calls[w] ?? 1
      const from = performance.now()
      for (let i = 0; i < n; i++) work()
      taken[w]?.push((performance.now() - from) / n)
    })
  return taken.map((t) => t.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? NaN)
}

const hose = (i: number, length: number) =>
  ({ kind: 'hose', id: `h${i}`, label: 'hose', length, diameter: 0.016, roughness: 1.5e-6 }) as const
const fitting = (i: number, k: number) =>
  ({ kind: 'fitting', id: `f${i}`, label: 'fitting', lossCoefficient: k, diameter: 0.016, count: 1 }) as const

/** A canister in its cabinet: twelve elements, pump and reservoirs apart. */
const CANISTER: Circuit = {
  pump: { shutOffHead: 1.8, maxFlow: 1000 / 3.6e6, exponent: 1.75 },
  segments: [
    fitting(1, 1.5),
    fitting(2, 1.5),
    hose(3, 1.5),
    fitting(4, 1.2),
    fitting(5, 0.6),
    fitting(6, 0.6),
    fitting(7, 3),
    fitting(8, 1.2),
    fitting(9, 0.6),
    hose(10, 1.5),
    fitting(11, 1.5),
    fitting(12, 1),
  ],
  staticHead: 0,
  fluid: { kinematicViscosity: EPANET_VISCOSITY, gravity: EPANET_GRAVITY, correlation: 'swamee-jain' },
}

/** The same twelve as a network, with its pump ahead of them. */
const IN_A_ROW: Network = {
  heads: { tank: 0, back: 0 },
  fluid: CANISTER.fluid,
  elements: [
    { ...{ id: 'pump', label: 'pump', from: 'tank', to: 'n0' }, kind: 'pump', pump: CANISTER.pump },
    ...CANISTER.segments.map(
      (s, i) => ({ ...s, from: `n${i}`, to: i === 11 ? 'back' : `n${i + 1}` }) as Element,
    ),
  ],
}

async function solver(): Promise<void> {
  const engine = await epanet(CANISTER)
  const theirs = engine.solve()
  const solve = prepareNetwork(IN_A_ROW)
  const apart = (ours = NaN): string => ((ours / theirs - 1) * 100).toFixed(4)
  const [a = NaN, b = NaN, c = NaN] = times([() => engine.solve(), solve, () => dutyPoint(CANISTER)])
  engine.close()
  console.log(
    `network, 12 in a row         EPANET ${(a * 1000).toFixed(1)} µs · ours ${(b * 1000).toFixed(1)} µs · ${(a / b).toFixed(1)} times as fast · flow differs by ${apart(solve().flows[0])} % · target 25 times`,
  )
  console.log(
    `duty point, with its checks  ours ${(c * 1000).toFixed(1)} µs · flow differs by ${apart(dutyPoint(CANISTER).flow)} %`,
  )
}

const between = (id: string, from: string, to: string) => ({ id, label: id, from, to })
const loss = (id: string, from: string, to: string, k: number): Element => ({
  ...between(id, from, to),
  kind: 'fitting',
  lossCoefficient: k,
  diameter: 0.016,
  count: 1,
})
const pipe = (id: string, from: string, to: string): Element => ({
  ...between(id, from, to),
  kind: 'hose',
  length: 1.5,
  diameter: 0.016,
  roughness: 1.5e-6,
})
const bed = (id: string, from: string, to: string, permeability: number, inertia: number): Element => ({
  ...between(id, from, to),
  kind: 'layer',
  thickness: 0.03,
  area: 0.03,
  permeability,
  inertia,
})

/** A filled canister of twelve elements: hoses, taps, five layers, a gap beside the fine one, the pump. */
const FILLED: Network = {
  heads: { tank: 0, back: 0 },
  fluid: { kinematicViscosity: EPANET_VISCOSITY, gravity: EPANET_GRAVITY, correlation: 'swamee-jain' },
  elements: [
    loss('e1', 'tank', 'a', 1.5),
    pipe('e2', 'a', 'b'),
    loss('e3', 'b', 'c', 2.4),
    bed('e4', 'c', 'd', 1.5e-7, 245),
    bed('e5', 'd', 'e', 8e-10, 3000),
    {
      ...between('e6', 'd', 'e'),
      kind: 'slot',
      gap: 0.002,
      perimeter: 0.7,
      length: 0.02,
      lossCoefficient: 1.5,
    },
    bed('e7', 'e', 'f', 7e-8, 2000),
    bed('e8', 'f', 'g', 7e-8, 2000),
    { ...between('e9', 'g', 'h'), kind: 'pump', pump: CANISTER.pump },
    loss('e10', 'h', 'i', 2.4),
    pipe('e11', 'i', 'j'),
    loss('e12', 'j', 'back', 2.5),
  ],
}

async function network(): Promise<void> {
  const engine = await openEpanet(FILLED, 3e-4)
  const solve = prepareNetwork(FILLED)
  const theirs = engine.solve()
  const apart = Math.max(...solve().results.map((r, i) => Math.abs(r.flow / (theirs[i] ?? NaN) - 1)))
  const [a = NaN, b = NaN, c = NaN] = times([() => engine.solve(), solve, () => solveNetwork(FILLED)])
  engine.close()
  console.log(
    `network, 12 with layers      EPANET ${(a * 1000).toFixed(1)} µs · ours ${(b * 1000).toFixed(1)} µs (${(c * 1000).toFixed(1)} with its checks) · ${(a / b).toFixed(1)} times as fast · flows within ${(apart * 100).toFixed(4)} % · target 25 times`,
  )
}

function fillEdit(): void {
  const media = [...GENERIC_MEDIA, ...demoBundle.media]
  const stock = STOCK_CLASSES[1] as (typeof STOCK_CLASSES)[0]
  const house = HOUSE_RULES[0] as (typeof HOUSE_RULES)[0]
  const each = demoBundle.models.map((m) => {
    const dossier = { logs: [], photos: [], ...m } as unknown as Dossier
    const record = pathRecord(dossier, media as unknown as Medium[], assess(modelRecord(dossier)), null)
    const base = record && pathBase(record)
    const fill = record?.fills[0]
    if (base?.kind !== 'ready' || !fill) return { name: m.model.name, held: 0, whole: 0 }
    const c = { ...base.base, fill }
    const [held = NaN, whole = NaN] = times(
      [
        () => auditOrder(outcomeOf(c, stock, true), house),
        () => {
          const o = outcomeOf(c, stock)
          return [auditOrder(o, house), pathSensitivity(o)]
        },
      ],
      9,
    )
    return { name: m.model.name, held, whole }
  })
  const worst = each.reduce((w, t) => (t.whole > w.whole ? t : w))
  console.log(
    `a fill after one edit        slowest ${worst.whole.toFixed(1)} ms with uncertainty and changes, ${worst.held.toFixed(1)} ms while it is dragged (${worst.name}) · target under 16 ms in a worker`,
  )
}

/** As the app has it: with the library of media, so that fills, films and every school are worked out too. */
function dossierEdit(): void {
  const media = [...GENERIC_MEDIA, ...demoBundle.media] as unknown as Medium[]
  const each = demoBundle.models.map((m) => {
    const dossier = { logs: [], photos: [], ...m } as unknown as Dossier
    return { name: m.model.name, ms: times([() => assess(modelRecord(dossier, media))], 9)[0] ?? NaN }
  })
  const worst = each.reduce((w, t) => (t.ms > w.ms ? t : w))
  console.log(
    `one dossier after one edit   slowest ${worst.ms.toFixed(1)} ms (${worst.name}) · target under 16 ms in a worker`,
  )
}

/** Size of the shelf's first load: the entry and what it imports statically. */
function firstLoad(): void {
  const dist = new URL('../../web/dist/', import.meta.url)
  const html = readFileSync(new URL('index.html', dist), 'utf8')
  const wanted = new Set([...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((m) => m[1] ?? ''))
  for (const name of wanted)
    for (const m of readFileSync(new URL(name, dist), 'utf8').matchAll(
      /(?:from|import)\s*"\.\/([\w.-]+\.js)"/g,
    ))
      wanted.add(`assets/${m[1] ?? ''}`)
  const files = [...wanted].map((name) => readFileSync(new URL(name, dist)))
  const sum = (f: (b: Buffer) => Buffer): string =>
    (files.reduce((n, b) => n + f(b).length, 0) / 1000).toFixed(1)
  console.log(
    `first load, shelf            ${wanted.size} scripts · ${sum((b) => gzipSync(b))} kB gzip · ${sum((b) => brotliCompressSync(b))} kB brotli · target 140 kB · ${readdirSync(new URL('assets/', dist)).length} files built`,
  )
}

await solver()
await network()
fillEdit()
dossierEdit()
counter()
seasons()
await draws()
firstLoad()
await shelfRanked()
await shelfOfMany()
await waits()
