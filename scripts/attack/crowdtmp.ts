import { started, say, faults } from './app'
import { manyModels, flood, writersBeside, biasMoved } from './crowd'
const app = await started()
try { await manyModels(app); await flood(app); await writersBeside(app); await biasMoved(app) } finally { await app.stop() }
for (const f of [...new Set(faults)].slice(0, 20)) say('FAULT ' + f)
process.exit(0)
