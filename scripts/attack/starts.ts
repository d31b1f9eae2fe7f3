import { spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { freePort, ROOT } from '../lib/system.mjs'
import { ask, faults, newFolder, pause, say, start, started, tally, type Answer, type App } from './app'

/** Two starts on one folder, again and again: one is ready, the other says why not, and its end ends nothing. */
export async function doubleStarts(): Promise<void> {
  let good = 0
  for (let i = 0; i < 5; i++) {
    const folder = newFolder()
    const [a, b] = await Promise.all([start(folder, await freePort()), start(folder, await freePort())])
    const apps = [a, b].filter((x): x is App => typeof x !== 'string')
    const words = [a, b].find((x): x is string => typeof x === 'string') ?? ''
    const [only] = apps
    const lives = only && (await ask(`${only.address}/models`, 'GET')).status === 200
    if (apps.length === 1 && lives && /under way|already running/.test(words)) good++
    else faults.push(`double start ${i + 1}: ${apps.length} ready; ${words}`)
    for (const app of apps) await app.stop()
  }
  say(`double starts: ${good} of 5 as they should be`)
}

/** First starts killed at twenty moments; each is made good by the next. */
export function killedStarts(): void {
  const r = spawnSync(
    process.execPath,
    ['--test', '--test-name-pattern', 'first start killed', 'scripts/tests/'],
    {
      cwd: ROOT,
      env: { ...process.env, MOMENTS: '20' },
      encoding: 'utf8',
    },
  )
  if (r.status !== 0) faults.push(`a first start that was killed was not made good: ${r.stdout.slice(-500)}`)
  say(`first starts killed at 20 moments: ${r.status === 0 ? 'all made good' : 'see the faults'}`)
}

/** Every number of every kind of row at its ends, on every screen, in a browser. */
export function edges(): void {
  const r = spawnSync(join(ROOT, 'node_modules', '.bin', 'playwright'), ['test', 'edges', '--retries', '0'], {
    cwd: ROOT,
    env: { ...process.env, EDGES: process.env.EDGES ?? 'kinds' },
    encoding: 'utf8',
  })
  if (r.status !== 0) faults.push(`a screen broke on a number at its end: ${r.stdout.slice(-1500)}`)
  say(`numbers at their ends, on every screen: ${r.status === 0 ? 'none broke' : 'see the faults'}`)
}

/** A small file system that runs full while it is written to, and has room again. */
export async function fullDisk(): Promise<void> {
  const folder = newFolder()
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=220m,mode=755', 'tmpfs', folder]).status !== 0) {
    say('full disk: left out, a small file system cannot be mounted here')
    return
  }
  try {
    const app = await started(folder)
    const fill = join(folder, 'filler')
    const add = (i: number) =>
      ask(
        `${app.address}/models`,
        'POST',
        {
          id: randomUUID(),
          maker: 'Quillon',
          name: `Full ${i} ${'x'.repeat(40)}`,
          kind: 'internal',
          note: 'y'.repeat(3900),
        },
        { 'idempotency-key': randomUUID() },
      )
    spawnSync('dd', ['if=/dev/zero', `of=${fill}`, 'bs=1M'], { stdio: 'ignore' })
    const full: Answer[] = []
    for (let i = 0; i < 3000 && !full.some((a) => a.status !== 201); i++) full.push(await add(i))
    for (let i = 0; i < 20; i++) full.push(await add(5000 + i))
    for (const a of full)
      if (![201, 503].includes(a.status)) faults.push(`on a full disk: ${a.status} ${a.code}`)
    rmSync(fill)
    let back = false
    for (let i = 0; i < 100 && !back; i++) {
      back = (await add(9000 + i)).status === 201
      if (!back) await pause(200)
    }
    if (!back) faults.push('with room again nothing was written')
    say(`full disk: ${tally(full)}; with room again ${back ? 'it writes' : 'it does not write'}`)
    writeFileSync(fill, '')
    spawnSync('dd', ['if=/dev/zero', `of=${fill}`, 'bs=1M'], { stdio: 'ignore' })
    await app.stop()
    const again = await start(folder, await freePort())
    say(`full disk, started again: “${typeof again === 'string' ? again.split('\n').at(-1) : 'ready'}”`)
    if (typeof again !== 'string') await again.stop()
  } finally {
    spawnSync('umount', ['-l', folder])
  }
}
