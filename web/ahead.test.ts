/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { STATIONS } from '../core/judging/stations'
import { VIEWS } from './ahead'

const MAIN = readFileSync(join(__dirname, 'src', 'main.tsx'), 'utf8')
/** The views that the app's own routes import, by an address of theirs. */
const ROUTES = [...MAIN.matchAll(/path: '([^']+)',\s(?:\s+loader:[\s\S]*?,\n)?\s+lazy: async [^']*'\.\/views\/([^']+)'/g)].map(
  ([, path, module]) => [`/${(path as string).replace(/:id\??/, 'x')}`, module as string] as const,
) // prettier-ignore

test.each(ROUTES)('%s is asked for ahead as the routes know it, or not at all', (path, module) => {
  const view = VIEWS.find((v) => new RegExp(v.path).test(path))
  if (view) expect(view.modules).toContain(`views/${module}`)
}) // prettier-ignore

test('every station of a dossier is asked for ahead, with the dossier, and has a view', () => {
  expect(STATIONS).toHaveLength(9)
  expect(readdirSync(join(__dirname, 'src', 'stations')).sort()).toEqual(
    STATIONS.map((s) => `${s}.tsx`).sort(),
  )
  for (const station of STATIONS) {
    const view = VIEWS.find((v) => new RegExp(v.path).test(`/models/x/${station}`))
    const onTanks = ['tanks', 'visits'].includes(station)
    expect(view?.asks).toEqual(['/models/$1/opened', ...(onTanks ? ['/tanks?limit=500'] : [])])
    expect(view?.modules).toEqual(['views/dossier/Dossier', `stations/${station}`])
  }
})
