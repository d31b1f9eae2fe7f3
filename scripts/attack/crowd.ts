import { randomUUID } from 'node:crypto'
import http from 'node:http'
import { setTimeout as pause } from 'node:timers/promises'
import { connect } from '@ypsometer/server/db/client'
import { fill, MODELS } from '../bench/many'
import { runningUrl } from '../lib/cluster.mjs'
import { ask, create, faults, memoryOf, say, SECONDS, tally, type Answer, type App } from './app'
import { at, Pulse } from './pulse'

const ms = (v: number): string => `${v.toFixed(0)} ms`
const seconds = (from: number): number => (performance.now() - from) / 1000

/** Waits until the worker has made every row of the shelf stand on the same; how long (s), or NaN. */
async function untilAllStand(app: App): Promise<number> {
  const { pool } = connect(runningUrl(app.folder), 1)
  const from = performance.now()
  try {
    for (let last = ''; seconds(from) < 600; await pause(1000)) {
      const { rows } = await pool.query<{ n: number; key: string | null }>(
        `select count(*)::int as n, min(split_part(worked_from, ':', 2)) as key from shelf_entry
         where split_part(coalesce(worked_from, ''), ':', 1) is distinct from revision::text
         or split_part(worked_from, ':', 2) <> (select split_part(worked_from, ':', 2) from shelf_entry
           where worked_from is not null group by 1 order by count(*) desc limit 1)`,
      )
      const left = String(rows[0]?.n)
      if (left === '0' && last === '0') return seconds(from)
      last = left
    }
    return NaN
  } finally {
    await pool.end()
  }
}

/** Ten thousand models with bare trials, all rows of the shelf worked out by the worker. */
export async function manyModels(app: App): Promise<void> {
  const { db, pool } = connect(runningUrl(app.folder), 2)
  await fill(db)
  await pool.end()
  const took = await untilAllStand(app)
  if (Number.isNaN(took)) faults.push('the shelf was not worked out within ten minutes')
  say(`shelf: ${MODELS} models worked out by the worker in ${took.toFixed(0)} s`)
}

const agent = new http.Agent({ keepAlive: true })
/** Reads an answer to its end as a browser does, short, and makes nothing of it: that is not what is measured. */
const read = (url: string): Promise<Answer> =>
  new Promise((done) => {
    const lost = (): void => done({ status: 0, code: '', body: null })
    http
      .get(url, { agent, headers: { 'accept-encoding': 'gzip, deflate, br' } }, (r) => {
        r.resume()
        r.on('end', () => done({ status: r.statusCode ?? 0, code: '', body: null }))
        r.on('error', lost)
      })
      .on('error', lost)
  })

/** 200 readers of a warm page of the shelf at once; how they are served, and how health is meanwhile. */
export async function flood(app: App): Promise<void> {
  const until = Date.now() + Math.min(SECONDS, 10) * 1000
  const answers: Answer[] = []
  const waits: number[] = []
  const reader = async (): Promise<void> => {
    while (Date.now() < until) {
      const from = performance.now()
      answers.push(await read(`${app.address}/models?limit=100`))
      waits.push(performance.now() - from)
    }
  }
  const health = new Pulse(`${app.address}/health`)
  await Promise.all(Array.from({ length: 200 }, reader))
  const { times, refused } = await health.taken()
  await health.stop()
  for (const a of answers) if (a.status !== 200) faults.push(`the flood got ${a.status} ${a.code}`)
  if (refused) faults.push(`health was refused ${refused} times in a flood`)
  waits.sort((a, b) => a - b)
  const { most } = memoryOf(app)
  if (most > 600) faults.push(`a flood of readers took ${most.toFixed(0)} MB`)
  say(
    `flood: 200 readers, ${tally(answers)}, p50 ${ms(at(waits, 0.5))}, p99 ${ms(at(waits, 0.99))}, longest ${ms(at(waits, 1))}; health meanwhile ${ms(at(times, 0.5))} (median), ${ms(at(times, 0.95))} (95 %), ${refused} of ${times.length} refused; most memory ${most.toFixed(0)} MB`,
  )
}

/** A model with a bare trial, to be written to. */
async function bareTrial(app: App): Promise<{ readonly modelId: string; readonly trialId: string }> {
  const modelId = randomUUID()
  const trialId = randomUUID()
  await create(app, 'models', { id: modelId, maker: 'Quillon', name: `Bare ${modelId}`, kind: 'internal' })
  await create(app, 'claims', {
    id: randomUUID(),
    modelId,
    quantity: 'rated-flow',
    value: 2.5e-4,
    printedOn: 'box',
  })
  await create(app, 'trials', { id: trialId, modelId, state: 'empty' })
  return { modelId, trialId }
}

const run = (app: App, trialId: string): Promise<Answer> =>
  create(app, 'readings', {
    id: randomUUID(),
    trialId,
    takenAt: new Date().toISOString(),
    volume: 0.005,
    seconds: 15 + 20 * Math.random(),
  })

/** Writes runs of a bare trial one after another for a while; how many were acknowledged in a second. */
async function write(app: App, trialId: string, until: number): Promise<number> {
  let n = 0
  while (Date.now() < until) {
    const a = await run(app, trialId)
    if (a.status === 201) n++
    else faults.push(`a writer beside readers got ${a.status} ${a.code}`)
  }
  return n
}

/** Does a part of the attack while somebody notes runs of a bare trial: each is taken, and all of them are there. */
export async function meanwhile(app: App, part: (app: App) => Promise<void>): Promise<void> {
  const { modelId, trialId } = await bareTrial(app)
  let going = true
  const waits: number[] = []
  const noting = (async () => {
    for (; going; await pause(100)) {
      const from = performance.now()
      const a = await run(app, trialId)
      waits.push(performance.now() - from)
      if (a.status !== 201) faults.push(`a run beside ${part.name} got ${a.status} ${a.code}`)
    }
  })()
  await part(app)
  going = false
  await noting
  const { body } = await ask(`${app.address}/models/${modelId}/dossier`, 'GET')
  const total = (body as { readings: unknown[] }).readings.length
  if (total !== waits.length) faults.push(`${waits.length} runs beside ${part.name}, ${total} of them kept`)
  waits.sort((a, b) => a - b)
  say(`runs noted beside ${part.name}: ${waits.length}, ${total} kept; p50 ${ms(at(waits, 0.5))}, longest ${ms(at(waits, 1))}`) // prettier-ignore
}

/** Twenty writers of bare trials, alone, beside ten readers, and beside 300 open streams of progress. */
export async function writersBeside(app: App): Promise<void> {
  const trials = await Promise.all(Array.from({ length: 20 }, () => bareTrial(app)))
  const span = Math.min(SECONDS, 8)
  const written = async (): Promise<string> => {
    const until = Date.now() + span * 1000
    const counts = await Promise.all(trials.map(({ trialId }) => write(app, trialId, until)))
    return `${(counts.reduce((a, b) => a + b, 0) / span).toFixed(0)}/s`
  }
  const alone = await written()
  let going = true
  const waits: number[] = []
  const readers = Array.from({ length: 10 }, async (_, i) => {
    while (going) {
      const from = performance.now()
      const a = await read(`${app.address}/models?limit=100${i % 2 ? '&sort=rated-flow' : ''}`)
      waits.push(performance.now() - from)
      if (a.status !== 200) faults.push(`a reader beside writers got ${a.status} ${a.code}`)
    }
  })
  const beside = await written()
  going = false
  await Promise.all(readers)
  waits.sort((a, b) => a - b)
  const ranking = await ask(`${app.address}/rankings`, 'POST', undefined, {
    'idempotency-key': randomUUID(),
  })
  const { id } = ranking.body as { id: string }
  const open = Array.from({ length: 300 }, () =>
    http.get(`${app.address}/rankings/${id}/progress`, { agent: false }).on('error', () => undefined),
  )
  await pause(1000)
  const streams = await written()
  open.forEach((r) => r.destroy())
  await ask(`${app.address}/rankings/${id}/cancel`, 'POST')
  say(
    `writers of bare trials: ${alone} alone, ${beside} beside ten readers (p50 ${ms(at(waits, 0.5))}, p99 ${ms(at(waits, 0.99))}), ${streams} beside 300 streams of progress while a ranking goes on`,
  )
}

/** Load where the ground of every row moves: how a page of 100 comes then, and how long until all stand again. */
export async function basisMoved(app: App): Promise<void> {
  const page = async (): Promise<{ took: number; old: number }> => {
    const from = performance.now()
    const a = await ask(`${app.address}/models?limit=100`, 'GET')
    const { items } = a.body as { items: { old: boolean }[] }
    return { took: performance.now() - from, old: items.filter((r) => r.old).length }
  }
  await page()
  const before = await page()
  const rule = await ask(`${app.address}/house-rules`, 'GET')
  const { items } = rule.body as { items: { id: string; version: number; name: string; chosen: boolean }[] }
  const chosen = items.find((r) => r.chosen)
  if (!chosen) throw new Error('no house rule is in force')
  await ask(
    `${app.address}/house-rules/${chosen.id}`,
    'PATCH',
    { name: `${chosen.name}, in other words` },
    { 'if-match': `"${chosen.version}"`, 'idempotency-key': randomUUID() },
  )
  const first = await page()
  const second = await page()
  const stands = await untilAllStand(app)
  if (first.took > 1000) faults.push(`a page of 100 whose basis moved took ${ms(first.took)}`)
  if (Number.isNaN(stands)) faults.push('the shelf did not stand again within ten minutes')
  say(
    `what every row stands on moved: a page of 100 ${ms(before.took)} before, ${ms(first.took)} and ${ms(second.took)} after (${first.old} and ${second.old} of it said to be old); all ${MODELS} stand again after ${stands.toFixed(0)} s`,
  )
}
