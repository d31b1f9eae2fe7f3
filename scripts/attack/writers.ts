import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { runningUrl } from '../lib/cluster.mjs'
import { ask, create, childOf, faults, pause, say, SECONDS, tally, type Answer, type App } from './app'

/** Twenty writers while connections are cut, the database and the server are killed, and at last all of it at once. */
export async function writers(app: App): Promise<void> {
  const { address, folder } = app
  const modelId = randomUUID()
  const trialId = randomUUID()
  await create(
    app,
    'models',
    { id: modelId, maker: 'Quillon', name: 'Attacked', kind: 'internal' },
    randomUUID(),
  )
  await create(app, 'trials', { id: trialId, modelId }, randomUUID())
  const until = Date.now() + SECONDS * 1000
  const acknowledged = new Set<string>()
  const all: Answer[] = []
  const writer = async (): Promise<void> => {
    while (Date.now() < until) {
      const body = {
        id: randomUUID(),
        trialId,
        takenAt: new Date().toISOString(),
        volume: 0.005,
        seconds: 20,
      }
      const key = randomUUID()
      for (let tries = 0; tries < 200; tries++) {
        const a = await create(app, 'readings', body, key)
        all.push(a)
        if (a.status === 201) {
          acknowledged.add(body.id)
          break
        }
        if (a.status !== 0 && a.status !== 503) faults.push(`a writer got ${a.status} ${a.code}`)
        await pause(100)
      }
    }
  }
  let kills = 0
  const killer = async (): Promise<void> => {
    while (Date.now() < until - 4000) {
      await pause(2500)
      const kind = kills++ % 3
      if (kind === 0) {
        const client = new pg.Client({ connectionString: runningUrl(folder) })
        client.on('error', () => undefined)
        await client.connect().catch(() => undefined)
        await client
          .query('select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid()')
          .catch(() => undefined)
        await client.end().catch(() => undefined)
      } else if (kind === 1) {
        process.kill(
          Number(readFileSync(join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]),
          'SIGKILL',
        )
      } else {
        const server = childOf(app, 'dist/server.mjs')
        if (server) process.kill(server, 'SIGKILL')
      }
    }
  }
  await Promise.all([killer(), ...Array.from({ length: 20 }, writer)])
  for (let i = 0; (await ask(`${address}/health`, 'GET')).status !== 200; i++) {
    if (i > 300 || app.child.exitCode !== null) {
      faults.push('after the kills the app did not come back')
      return
    }
    await pause(100)
  }
  const dossier = (await ask(`${address}/models/${modelId}/dossier`, 'GET')).body as {
    readings: { id: string }[]
  }
  const ids = dossier.readings.map((r) => r.id)
  const there = new Set(ids)
  const lost = [...acknowledged].filter((id) => !there.has(id)).length
  if (lost) faults.push(`${lost} acknowledged writes were lost`)
  if (there.size !== ids.length) faults.push(`${ids.length - there.size} writes were done twice`)
  say(
    `writers: 20 through ${kills} kills: ${acknowledged.size} acknowledged, ${lost} lost, ${ids.length - there.size} twice (${tally(all)})`,
  )
}
