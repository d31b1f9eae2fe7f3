// The types of the API that the example uses, from the OpenAPI page of a running bench:
//   node --import tsx examples/client/generate.ts http://127.0.0.1:4680
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import openapiTS, { astToString, type OpenAPI3 } from 'openapi-typescript'

/** What of the API the example asks. */
const USED = ['/me', '/session', '/models', '/models/{id}/dossier', '/calc/flow-runs', '/label-bias']

const bench = process.argv[2] ?? 'http://127.0.0.1:4680'
const whole = (await (await fetch(`${bench}/api/v1/openapi.json`)).json()) as OpenAPI3
const paths = Object.fromEntries(
  Object.entries(whole.paths ?? {}).filter(([path]) => USED.includes(path.replace('/api/v1', ''))),
)
const types = astToString(await openapiTS({ ...whole, paths }, { defaultNonNullable: false }))
const out = process.argv[3] ?? join(import.meta.dirname, 'api.d.ts')
writeFileSync(out, `// Generated from /api/v1/openapi.json by generate.ts.\n${types}`)
