import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliDecompressSync } from 'node:zlib'
import { harness, type Harness } from './tests/harness'

/** Draws what it was given, or nothing for long, or fails, as the address asks. */
const DRAWER = `export default async (job) => {
  if (!job) return ''
  if (job.address.endsWith('?slow')) await new Promise((done) => setTimeout(done, 600))
  if (job.address.endsWith('?broken')) throw new Error('no such station')
  if (job.address.endsWith('/nowhere')) return ''
  const { me, opened, tanks, ...rest } = job
  return \`<p>\${JSON.parse(opened).dossier.model.name}</p>\${JSON.stringify({ ...rest, who: JSON.parse(me).person.name, tanks: tanks && JSON.parse(tanks).items.length })}\`
}`
const PAGE = `<html><head><script src="/ahead.js" async></script><script src="/theme.js"></script>
<script type="module" crossorigin src="/assets/app.js"></script>
<link rel="modulepreload" crossorigin href="/assets/part.js">
<link rel="stylesheet" crossorigin href="/assets/app.css">
<link rel="preload" as="font" href="/assets/font.woff2"></head>
<body><div id="root"></div><i>end</i></body></html>`
const THEME = 'theme = "$&"'
const BEGIN = 'begin()'
const STYLE = 'p{margin:0}'

let folder: string
let h: Harness
let id: string
const logged: string[] = []
/** The page of an address, as a browser with these cookies gets it. */
const get = async (url: string, cookie = '', of = h) =>
  (await of.app.inject({ url, headers: { host: 'localhost', cookie } })).body
const station = (rest = ''): string => `/models/${id}/verdict${rest}`
/** The thread that draws is there once it has drawn. */
const untilDrawn = async (url: string, cookie = ''): Promise<string> => {
  for (let i = 0; i < 200; i++) {
    const page = await get(url, cookie)
    if (page.includes('id="picture"')) return page
    await new Promise((done) => setTimeout(done, 25))
  }
  throw new Error('It was never drawn.')
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'pictures-'))
  mkdirSync(join(folder, 'assets'))
  for (const [file, text] of Object.entries({
    'index.html': PAGE,
    'theme.js': THEME,
    'begin.js': BEGIN,
    'assets/app.css': STYLE,
  }))
    writeFileSync(join(folder, file), text)
  writeFileSync(join(folder, 'drawer.mjs'), DRAWER)
  const logTo = { write: (line: string) => void logged.push(line) }
  h = await harness({ webRoot: folder, drawer: join(folder, 'drawer.mjs'), logLevel: 'warn', logTo })
  id = randomUUID()
  await h.create('/models', { id, maker: 'Marrowby', name: 'Pictured 5 $& <1>', kind: 'canister' })
})
afterAll(async () => {
  await h.close()
  rmSync(folder, { recursive: true })
})

test('a station is drawn into its page, by the reader’s own choices, and by what it was opened with', async () => {
  // The first one starts the thread and is not kept waiting for it.
  expect(await get(station())).toBe(PAGE)
  const page = await untilDrawn(
    station('?hookup=a'),
    'ypsometer.units=us; ypsometer.decimal=,; ypsometer.theme=fishroom',
  )
  const told = {
    address: station('?hookup=a'),
    units: 'us',
    decimal: ',',
    theme: 'fishroom',
    who: 'This machine',
  }
  // Theme and style stand in it; what starts the app comes after all of it, and reads nothing before.
  expect(page).toBe(`<html><head><script>${THEME}</script>


<style>${STYLE}</style>
<link rel="preload" as="font" href="/assets/font.woff2"></head>
<body><div id="root"><div id="picture" inert><p>Pictured 5 $& <1></p>${JSON.stringify(told)}</div></div>\
<script data-app="/assets/app.js">${BEGIN}</script><i>end</i></body></html>`)
})

test('a station that looks at tanks gets them too', async () => {
  expect(await untilDrawn(`/models/${id}/visits`)).toContain('"tanks":0')
})

test('its policy names each script and style that stands in it, and no other', async () => {
  const { headers } = await h.app.inject({ url: station(), headers: { host: 'localhost' } })
  const named = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`
  const policy = String(headers['content-security-policy'])
  expect(policy).toContain(`script-src 'self' ${named(THEME)} ${named(BEGIN)};`)
  expect(policy).toContain(`style-src 'self' ${named(STYLE)};`)
})

test('it is sent compressed to whoever takes that, and not again while it is the same', async () => {
  const plain = await untilDrawn(station())
  const ask = (more: Record<string, string>) =>
    h.app.inject({ url: station(), headers: { host: 'localhost', ...more } })
  const small = await ask({ 'accept-encoding': 'gzip, br' })
  expect(small.headers['content-encoding']).toBe('br')
  expect(brotliDecompressSync(small.rawPayload).toString()).toBe(plain)
  expect((await ask({ 'if-none-match': String(small.headers.etag) })).statusCode).toBe(304)
})

test('it is kept by no cache but the reader’s, and is new once the dossier was written to', async () => {
  const before = await untilDrawn(station())
  const { headers } = await h.app.inject({ url: station(), headers: { host: 'localhost' } })
  expect(headers['cache-control']).toBe('private, no-cache')
  expect(headers['content-type']).toBe('text/html; charset=utf-8')
  const renamed = await h.call('PATCH', `/models/${id}`, { name: 'Renamed' }, { 'if-match': '"1"' })
  expect(renamed.status).toBe(200)
  const after = await untilDrawn(station())
  expect(before).toContain('Pictured 5')
  expect(after).toContain('<p>Renamed</p>')
  expect(after).not.toContain('Pictured 5')
})

test.each([
  ['something waits on the reader’s device', () => station(), 'ypsometer.waiting=1'],
  ['there is no such model', () => `/models/${randomUUID()}/verdict`, ''],
  ['nothing stands there', () => `/models/${id}/nowhere`, ''],
  ['it is no station', () => '/tanks', ''],
  ['it is the desk of a trial', () => station(`/${randomUUID()}`), ''],
])('nothing is drawn ahead where %s', async (_, url, cookie) => {
  await untilDrawn(station())
  expect(await get(url(), cookie)).toBe(PAGE)
  await new Promise((done) => setTimeout(done, 300))
  expect(await get(url(), cookie)).toBe(PAGE)
})

test('a reader who saves data gets the page alone: what is drawn is said once more by the app', async () => {
  await untilDrawn(station())
  const saving = { host: 'localhost', 'save-data': 'on' }
  expect((await h.app.inject({ url: station(), headers: saving })).body).toBe(PAGE)
  const drawn = await h.app.inject({ url: station(), headers: { ...saving, 'save-data': 'off' } })
  expect(drawn.body).toContain('id="picture"')
  expect(String(drawn.headers.vary)).toContain('save-data')
})

test('another site’s page gets none for itself; a link from it leads to one', async () => {
  await untilDrawn(station())
  const from = async (mode: string): Promise<string> => {
    const headers = { host: 'localhost', 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': mode }
    return (await h.app.inject({ url: station(), headers })).body
  }
  expect(await from('no-cors')).toBe(PAGE)
  expect(await from('navigate')).toContain('id="picture"')
})

test('whoever is not signed in sees nothing of it', async () => {
  const closed = await harness({ webRoot: folder, drawer: join(folder, 'drawer.mjs'), visitor: null })
  try {
    for (let i = 0; i < 3; i++) {
      expect(await get(station(), '', closed)).toBe(PAGE)
      await new Promise((done) => setTimeout(done, 150))
    }
  } finally {
    await closed.close()
  }
})

test('one that is late is left out, and there for the next; one that cannot be drawn is left out and logged', async () => {
  await untilDrawn(station())
  expect(await get(station('?slow'))).toBe(PAGE)
  const page = await untilDrawn(station('?slow'))
  expect(page).toContain('?slow')
  logged.length = 0
  expect(await get(station('?broken'))).toBe(PAGE)
  expect(logged.join()).toContain('A page could not be drawn ahead')
})

test('without the program that draws, pages are as they were', async () => {
  const plain = await harness({ webRoot: folder, drawer: join(folder, 'none.mjs') })
  try {
    expect(await get(station(), '', plain)).toBe(PAGE)
  } finally {
    await plain.close()
  }
})
