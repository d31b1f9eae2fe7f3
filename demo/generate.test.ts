import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

test('the demo bench that ships is what its generator writes, byte for byte', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ypsometer-demo-'))
  try {
    const out = join(folder, 'bench.json')
    const r = spawnSync(process.execPath, ['--import', 'tsx', join(__dirname, 'generate.ts'), out], {
      encoding: 'utf8',
    })
    expect([r.status, r.stderr]).toEqual([0, ''])
    expect(readFileSync(out, 'utf8') === readFileSync(join(__dirname, 'saltery-row.json'), 'utf8')).toBe(true)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}, 60000)
