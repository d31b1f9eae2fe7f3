import { demoBundle } from '@ypsometer/demo'
import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { addAccount } from './people/accounts'
import { hashPassword } from './people/secrets'
import { demoHarness, type Harness } from './tests/harness'

jest.setTimeout(90_000)
const ROOT = join(__dirname, '..')
let h: Harness
let at = ''
beforeAll(async () => {
  h = await demoHarness()
  at = await h.app.listen({ host: '127.0.0.1', port: 0 })
})
afterAll(() => h.close())

/** Runs a program of the examples as its user does; what it says. */
const run = async (file: string, args: readonly string[], env: NodeJS.ProcessEnv = {}): Promise<string> =>
  (
    await promisify(execFile)(
      process.execPath,
      ['--import', 'tsx', join('examples', 'client', file), ...args],
      {
        cwd: ROOT,
        env: { ...process.env, ...env },
      },
    )
  ).stdout

test('the types of the example are those that the OpenAPI page gives now', async () => {
  const out = join(mkdtempSync(join(tmpdir(), 'ypsometer-client-')), 'api.d.ts')
  await run('generate.ts', [at, out])
  expect(readFileSync(out, 'utf8')).toBe(readFileSync(join(ROOT, 'examples', 'client', 'api.d.ts'), 'utf8'))
})

test('every answer and every request of the OpenAPI page can be read by another program', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'ypsometer-openapi-'))
  const page = (await h.call('GET', '/openapi.json')).body
  writeFileSync(join(folder, 'openapi.json'), JSON.stringify(page))
  const cli = join('node_modules', 'openapi-typescript', 'bin', 'cli.js')
  const files = [join(folder, 'openapi.json'), '-o', join(folder, 'all.d.ts')]
  await promisify(execFile)(process.execPath, [cli, ...files], { cwd: ROOT })
  const types = readFileSync(join(folder, 'all.d.ts'), 'utf8')
  for (const path of Object.keys(page.paths)) expect(types).toContain(`"${path}": {`)
})

test('the example client tells what was worked out here by hand', async () => {
  const told = await run('labels.ts', [at])
  const found = demoBundle.models.find((m) => m.model.name === 'Mop 300')
  const trial = found?.trials.find(
    (t) => t.kind === 'vessel' && t.state === 'empty' && !t.hookupId && t.lift === 0,
  )
  const flows = found?.readings.filter((r) => r.trialId === trial?.id).map((r) => (r.volume ?? 0) / (r.seconds ?? 1)) ?? [] // prettier-ignore
  const mean = flows.reduce((a, b) => a + b, 0) / flows.length
  expect(flows.length).toBeGreaterThan(2)
  expect(told).toMatch(new RegExp(`\\| Tarn & Wick Mop 300 \\| 300 \\| ${Math.round(mean * 3.6e6)} ± \\d+ \\| ${Math.round(mean * 3.6e6 / 3)} % \\|`)) // prettier-ignore
  expect(told).toContain('Read as This machine, editor.')
  expect(told).toMatch(/Median of \d+: \d+ % of the label/)
})

test('where everyone signs in it signs in, and is told in words when it may not', async () => {
  const passwordHash = await hashPassword('otter granite nine lamp')
  await h.db.transaction((tx) => addAccount(tx, { name: 'Orla', role: 'owner', passwordHash }))
  await expect(run('labels.ts', [at])).rejects.toMatchObject({
    stderr: expect.stringContaining('401 Sign in first'),
  })
  const told = await run('labels.ts', [at], {
    YPSOMETER_NAME: 'Orla',
    YPSOMETER_PASSWORD: 'otter granite nine lamp',
  })
  expect(told).toContain('Read as Orla, owner.')
  expect(told).toMatch(/Median of \d+/)
})
