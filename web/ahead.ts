import type { Plugin, Rollup } from 'vite'
import { firstPage } from '../contract/page'
import { looksAtTanks, STATIONS } from '../core/judging/stations'

/** A view by its address: the modules it is made of, and what it asks of the API. `$1` is what the address holds. */
export interface View {
  readonly path: string
  readonly modules: readonly string[]
  readonly asks: readonly string[]
}

const TANKS = firstPage('tanks')
const RULES = firstPage('house-rules')
const COUNTER = ['/candidates', TANKS, firstPage('stock-classes'), RULES]
const simple = (path: string, module: string, asks: readonly string[] = []): View => ({
  path: `^/${path}$`,
  modules: [`views/${module}`],
  asks,
})

/** The views that are opened by their address, as the routes of the app know them. */
export const VIEWS: readonly View[] = [
  { path: '^/$', modules: [], asks: ['/models?sort=name&limit=40'] },
  ...STATIONS.map((station) => ({
    path: `^/models/([^/]+)/${station}$`,
    modules: ['views/dossier/Dossier', `stations/${station}`],
    asks: ['/models/$1/opened', ...(looksAtTanks(station) ? [TANKS] : [])],
  })),
  simple('tanks(?:/[^/]+)?', 'tanks/Tanks', [TANKS, '/candidates']),
  simple('advise', 'advise/Advise', COUNTER),
  simple('compare', 'compare/Compare', [...COUNTER, firstPage('media')]),
  simple('upkeep', 'upkeep/Upkeep', ['/upkeep/filters', firstPage('ticks'), TANKS, RULES]),
  simple('reviews', 'reviews/Reviews', [firstPage('reviews'), '/candidates']),
  simple('library(?:/[^/]+)?', 'library/Library', [firstPage('media')]),
  simple('trial', 'trial/Trial', [...COUNTER, '/water-tests']),
  simple('rules(?:/[^/]+)?', 'rules/HouseRules', [RULES]),
]

/** Asks for what the view at this address needs, before any of the app has been read. Runs in the page, by itself. */
function askAhead(views: readonly (readonly [string, readonly string[], readonly string[]])[]): void {
  const link = (rel: string, href: string, as?: string): void => {
    const l = document.createElement('link')
    l.rel = rel
    l.href = href
    l.crossOrigin = ''
    if (as) l.setAttribute('as', as)
    document.head.append(l)
  }
  for (const [path, files, asks] of views) {
    const found = new RegExp(path).exec(location.pathname)
    if (!found) continue
    if (!location.search)
      for (const ask of ['/me', ...asks])
        link('preload', `/api/v1${ask.replace('$1', found[1] ?? '')}`, 'fetch')
    for (const file of files) link('modulepreload', `/${file}`)
    return
  }
}

/** Puts a script at the top of the page that asks for a view's code and data at once. */
export const askedAhead = (): Plugin => ({
  name: 'asked-ahead',
  apply: 'build',
  transformIndexHtml: () => [
    { tag: 'script', attrs: { src: '/ahead.js', async: true }, injectTo: 'head-prepend' },
  ],
  generateBundle(_options, bundle) {
    const chunks = Object.values(bundle).filter((c) => c.type === 'chunk') as Rollup.OutputChunk[]
    const byName = new Map(chunks.map((c) => [c.fileName, c]))
    const closure = (names: Iterable<string>): Set<string> => {
      const all = new Set(names)
      for (const name of all) byName.get(name)?.imports.forEach((i) => all.add(i))
      return all
    }
    const first = closure(chunks.filter((c) => c.isEntry).map((c) => c.fileName))
    // Schemas are for forms: whoever only looks waits for none.
    if ([...first].some((f) => byName.get(f)?.moduleIds.some((m) => m.includes('/node_modules/zod/'))))
      this.error('Something that the first page imports reads the schemas of the contract.')
    for (const { fileName, imports } of chunks)
      if (imports.some((i) => closure([i]).has(fileName)))
        this.error(`${fileName} imports, by way of others, itself: see withoutCircles in clusters.ts.`)
    const table = VIEWS.map(({ path, modules, asks }) => {
      const own = modules.map((m) => {
        const chunk = chunks.find((c) => c.facadeModuleId?.endsWith(`/src/${m}.tsx`))
        if (!chunk) throw new Error(`No view is made of ${m}.`)
        return chunk.fileName
      })
      return [path, [...closure(own)].filter((f) => !first.has(f)), asks]
    })
    this.emitFile({
      type: 'asset',
      fileName: 'ahead.js',
      source: `(${askAhead.toString()})(${JSON.stringify(table)})\n`,
    })
  },
})
