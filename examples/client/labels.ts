// # How much of the label is there?
// A notebook of a kind, in plain TypeScript: it reads the bench over its API and prints what it finds as Markdown.
//   node --import tsx examples/client/labels.ts http://127.0.0.1:4680
// Where everyone signs in: YPSOMETER_NAME and YPSOMETER_PASSWORD in the environment.
import createClient, { type Middleware } from 'openapi-fetch'
import type { paths } from './api'

const bench = process.argv[2] ?? 'http://127.0.0.1:4680'
const client = createClient<paths>({ baseUrl: bench })
const say = (text: string): void => void process.stdout.write(`${text}\n`)
const L_H = 3.6e6

/** What an answer holds. @throws with the problem's own words where it was refused. */
function held<T>({ data, error, response }: { data?: T; error?: unknown; response: Response }): T {
  if (data !== undefined) return data
  const { title = response.statusText, detail = '' } = (error ?? {}) as { title?: string; detail?: string }
  throw new Error(`${response.status} ${title} ${detail}`.trim())
}

// ## 1. Come in
const { YPSOMETER_NAME: name, YPSOMETER_PASSWORD: password } = process.env
if (name && password) {
  const answer = await client.POST('/api/v1/session', { body: { name, password } })
  held(answer)
  const cookie = answer.response.headers.getSetCookie().map((c) => c.split(';')[0]).join('; ')
  const remembered: Middleware = {
    onRequest: ({ request }) => {
      request.headers.set('cookie', cookie)
      return request
    },
  }
  client.use(remembered)
}
const { person } = held(await client.GET('/api/v1/me'))
say(`# Label and bench\n\nRead as ${person?.name ?? 'nobody'}, ${person?.role ?? 'without a role'}.\n`)

// ## 2. The shelf, page after page
const models: { id: string; name: string }[] = []
for (let cursor: string | undefined; ; ) {
  const page = held(await client.GET('/api/v1/models', { params: { query: { limit: 40, ...(cursor && { cursor }) } } })) // prettier-ignore
  models.push(...page.items.map((i) => ({ id: i.model.id, name: `${i.model.maker} ${i.model.name}` })))
  if (!page.next) break
  cursor = page.next
}

// ## 3. Bare and empty against the label: the only fair comparison
say('| model | label L/h | bench L/h | share |\n| --- | ---: | ---: | ---: |')
const shares: number[] = []
for (const { id, name: called } of models) {
  const d = held(await client.GET('/api/v1/models/{id}/dossier', { params: { path: { id } } }))
  const label = d.claims.find((c) => c.quantity === 'rated-flow')?.value
  const trial = d.trials.find((t) => t.kind === 'vessel' && t.state === 'empty' && !t.hookupId && t.lift === 0)
  const runs = d.readings.flatMap(({ trialId, volume, seconds }) =>
    trialId === trial?.id && volume && seconds ? [{ volume, seconds }] : [],
  )
  if (!label || !runs.length) continue
  const { mean, expandedUncertainty } = held(
    await client.POST('/api/v1/calc/flow-runs', { body: { runs } }),
  ) as { mean: number; expandedUncertainty: number }
  shares.push(mean / label)
  const flow = `${Math.round(mean * L_H)} ± ${Math.round(expandedUncertainty * L_H)}`
  say(`| ${called} | ${Math.round(label * L_H)} | ${flow} | ${((mean / label) * 100).toFixed(0)} % |`)
}

// ## 4. The shelf as a whole
const sorted = shares.sort((a, b) => a - b)
const middle = (sorted.length - 1) / 2
const median = ((sorted[Math.floor(middle)] ?? NaN) + (sorted[Math.ceil(middle)] ?? NaN)) / 2
say(`\nMedian of ${shares.length}: ${(median * 100).toFixed(0)} % of the label.`)
