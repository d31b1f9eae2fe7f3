import { demoBundle } from '@ypsometer/demo'
import { modelRecord, type Dossier } from '@ypsometer/contract'
import { dutyPoint, type Circuit } from '@ypsometer/core/hydraulics'
import { assess } from '@ypsometer/core/judging'
import { readdirSync, readFileSync } from 'node:fs'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { epanet, EPANET_GRAVITY, EPANET_VISCOSITY } from '../../core/hydraulics/epanet.fixture'

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
    fitting(1, 1.5), fitting(2, 1.5), hose(3, 1.5), fitting(4, 1.2), fitting(5, 0.6), fitting(6, 0.6),
    fitting(7, 3), fitting(8, 1.2), fitting(9, 0.6), hose(10, 1.5), fitting(11, 1.5), fitting(12, 1),
  ], // prettier-ignore
  staticHead: 0,
  fluid: { kinematicViscosity: EPANET_VISCOSITY, gravity: EPANET_GRAVITY, correlation: 'swamee-jain' },
}

async function solver(): Promise<void> {
  const engine = await epanet(CANISTER)
  const theirs = engine.solve()
  const ours = dutyPoint(CANISTER).flow
  const [a = NaN, b = NaN] = times([() => engine.solve(), () => dutyPoint(CANISTER)])
  engine.close()
  console.log(
    `network solve, 12 elements   EPANET ${(a * 1000).toFixed(1)} µs · ours ${(b * 1000).toFixed(1)} µs · ${(a / b).toFixed(1)} times as fast · flow differs by ${((ours / theirs - 1) * 100).toFixed(4)} %`,
  )
}

function dossierEdit(): void {
  const stamp = { version: 1, createdAt: '', updatedAt: '', deletedAt: null }
  const stamped = <T extends object>(rows: readonly T[]) => rows.map((r) => ({ ...stamp, ...r }))
  const each = demoBundle.models.map((m) => {
    const dossier = {
      model: { ...stamp, ...m.model },
      claims: stamped(m.claims),
      specimens: stamped(m.specimens),
      hookups: stamped(m.hookups),
      trials: stamped(m.trials),
      readings: stamped(m.readings),
      contents: [],
      parts: [],
      photos: [],
      bodies: [],
      chambers: [],
    } as unknown as Dossier
    return { name: m.model.name, ms: times([() => assess(modelRecord(dossier))], 9)[0] ?? NaN }
  })
  const worst = each.reduce((w, t) => (t.ms > w.ms ? t : w))
  console.log(
    `one dossier after one edit   slowest ${worst.ms.toFixed(1)} ms (${worst.name}) · target under 16 ms in a worker`,
  )
}

/** What the shelf's first load takes: the entry and what it imports statically. */
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
    `first load, shelf            ${wanted.size} scripts · ${sum((b) => gzipSync(b))} kB gzip · ${sum((b) => brotliCompressSync(b))} kB brotli · target 170 kB · ${readdirSync(new URL('assets/', dist)).length} files built`,
  )
}

await solver()
dossierEdit()
firstLoad()
