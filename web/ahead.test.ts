/** @jest-environment node */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { VIEWS } from './ahead'

const MAIN = readFileSync(join(__dirname, 'src', 'main.tsx'), 'utf8')
/** The views that the app's own routes import, by an address of theirs. */
const ROUTES = [...MAIN.matchAll(/path: '([^']+)',\s(?:\s+loader:[\s\S]*?,\n)?\s+lazy: async [^']*'\.\/views\/([^']+)'/g)].map(
  ([, path, module]) => [`/${(path as string).replace(/:id\??/, 'x')}`, module as string] as const,
) // prettier-ignore
const STATIONS = [...MAIN.matchAll(/^ {2}(\w+): async [^']*'\.\/views\/([^']+)'/gm)].map(
  ([, path, module]) => [`/models/x/${path}`, module as string] as const,
)

test.each([...ROUTES, ...STATIONS])('%s is asked for ahead as the routes know it, or not at all', (path, module) => {
  const view = VIEWS.find((v) => new RegExp(v.path).test(path))
  if (view) expect(view.modules).toContain(module)
}) // prettier-ignore

test('every station of a dossier is asked for ahead, with the dossier', () => {
  expect(STATIONS).toHaveLength(9)
  for (const [path] of STATIONS) {
    const view = VIEWS.find((v) => new RegExp(v.path).test(path))
    const onTanks = /(tanks|visits)$/.test(path)
    expect(view?.asks).toEqual(['/models/$1/opened', ...(onTanks ? ['/tanks?limit=500'] : [])])
    expect(view?.modules).toContain('dossier/Dossier')
  }
})
