// `npm run attack`: does its worst to an app of its own, on loopback and in a folder of its own: bodies at the edge and
// beyond it, writers through kills of everything, a full disk, double starts, a flood. It prints figures, and ends with
// 1 on a loss, a write done twice, a fault of ours without one of its own, or a crash. ATTACK_SECONDS bounds each part.
import { rmSync } from 'node:fs'
import { ensureBuild, ensurePackages } from '../lib/system.mjs'
import { faults, say, scratch, started } from './app'
import { fuzz } from './bodies'
import { basisMoved, flood, manyModels, meanwhile, writersBeside } from './crowd'
import { heavy } from './heavy'
import { doubleStarts, edges, fullDisk, killedStarts } from './starts'
import { writers } from './writers'

ensurePackages()
await ensureBuild()
try {
  const app = await started()
  await manyModels(app)
  await meanwhile(app, flood)
  await writersBeside(app)
  await basisMoved(app)
  await meanwhile(app, heavy)
  await meanwhile(app, fuzz)
  await writers(app)
  await app.stop()
  await doubleStarts()
  killedStarts()
  await fullDisk()
  edges()
} catch (error) {
  faults.push(error instanceof Error ? error.message : String(error))
}
rmSync(scratch, { recursive: true, force: true })
for (const f of [...new Set(faults)].slice(0, 40)) say(`FAULT ${f}`)
say(faults.length ? `${faults.length} faults` : 'nothing lost, nothing twice, no fault of ours, no crash')
process.exit(faults.length ? 1 : 0)
