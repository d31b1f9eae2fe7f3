import { zipSync, strToU8 } from 'fflate'
import { randomUUID } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { demoHarness, type Harness } from '../tests/harness'
import { tooMuchJson } from '../http/json'

let h: Harness
beforeAll(async () => {
  h = await demoHarness({ threads: true })
})
afterAll(() => h.close())

const DOCUMENT = 'document.ypso.json'
const send = async (path: string, payload: Buffer | string, type: string) => {
  const r = await h.app.inject({
    method: 'POST',
    url: `/api/v1${path}`,
    headers: { host: 'localhost', 'content-type': type, 'idempotency-key': randomUUID() },
    payload,
  })
  return { status: r.statusCode, body: r.json() as { code: string; errors: { field: string; message: string }[]; refused: { field: string; message: string }[] } } // prettier-ignore
}
const archive = (text: Uint8Array): Buffer => Buffer.from(zipSync({ [DOCUMENT]: text }, { level: 9 }))
const JSON_TYPE = 'application/json'

test('what is deep or has very many values is told without being built', () => {
  const told = (text: string, most?: number): string | null => tooMuchJson(Buffer.from(text), most)
  expect(told('['.repeat(64) + ']'.repeat(64))).toBeNull()
  expect(told('['.repeat(65) + ']'.repeat(65))).toMatch(/64 levels/)
  expect(told('[[],'.repeat(1e5))).toMatch(/64 levels/)
  expect(told(`[${'0,'.repeat(99)}0]`, 101)).toBeNull()
  expect(told(`[${'0,'.repeat(100)}0]`, 101)).toMatch(/101 values/)
  // What stands in a text is not counted, whatever its quotes.
  expect(told(`{"a":"${'[,'.repeat(1e4)}","b":"\\"${'['.repeat(99)}\\\\"}`, 9)).toBeNull()
  expect(told(`["\\\\", ${'['.repeat(70)}`)).toMatch(/64 levels/)
})

test('the same routes answer in a thread what they answer here, to the byte', async () => {
  const here = await demoHarness()
  try {
    const ask = (x: Harness, url: string) =>
      x.app.inject({ url: `/api/v1${url}`, headers: { host: 'localhost' } })
    for (const url of ['/documents/bench', '/csv/runs', '/documents/model']) {
      const [a, b] = [await ask(h, url), await ask(here, url)]
      expect([a.statusCode, a.headers['content-type']]).toEqual([b.statusCode, b.headers['content-type']])
      expect(a.payload === b.payload).toBe(true)
      expect(a.headers['content-disposition']).toBe(b.headers['content-disposition'])
    }
    // Who it is that asks is found out there as here.
    const strange = await h.app.inject({ method: 'POST', url: '/api/v1/documents', headers: { host: 'elsewhere' }, payload: {} }) // prettier-ignore
    expect(strange.statusCode).toBe(421)
  } finally {
    await here.close()
  }
}, 120_000)

test('an archive that opens to half a gigabyte, lists without end and deep ones are refused by name, others answered meanwhile', async () => {
  await send('/documents/preview', JSON.stringify({ text: '{}' }), JSON_TYPE)
  const big = Buffer.alloc(100e6, '{},')
  big[0] = '['.charCodeAt(0)
  const forged = archive(strToU8(`{"a":"${'x'.repeat(1000)}"}`))
  // The size an entry says it has when it is open, in its own header and in the list at the end.
  for (const mark of [0x04034b50, 0x02014b50]) {
    const at = forged.indexOf(Buffer.from(Uint32Array.of(mark).buffer))
    forged.writeUInt32LE(8, at + (mark === 0x04034b50 ? 22 : 24))
  }
  const packed = archive(big)
  const small = archive(big.subarray(0, 30e6))
  let longest = 0
  let done = false
  const pulse = (async () => {
    while (!done) {
      const from = performance.now()
      expect((await h.call('GET', '/health')).status).toBe(200)
      longest = Math.max(longest, performance.now() - from)
      await pause(10)
    }
  })()
  const [bomb, many, liar, texts, bare, deep, points] = [
    await send('/documents/zip/preview', packed, 'application/zip'),
    await send('/documents/zip/preview', small, 'application/zip'),
    await send('/documents/zip/preview', forged, 'application/zip'),
    await send('/documents/preview', `{"text":"[${'{},'.repeat(3e6)}{}]"}`, JSON_TYPE),
    await send('/documents/preview', `[${'0,'.repeat(4e6)}0]`, JSON_TYPE),
    await send('/documents/preview', JSON.stringify({ text: '['.repeat(100_000) }), JSON_TYPE),
    await send('/calc/tracer', `{"points":[${'0,'.repeat(3e6)}0]}`, JSON_TYPE),
  ]
  done = true
  await pulse
  expect([bomb?.status, bomb?.body.errors[0]?.field, bomb?.body.errors[0]?.message]).toEqual([422, 'archive', 'a document of at most 64 MB']) // prettier-ignore
  expect(many?.body.refused[0]?.message).toMatch(/at most \d+ values/)
  // It is read as far as it said it goes, and is no whole document then.
  expect(liar?.status === 422 || (liar?.body.refused.length ?? 0) > 0).toBe(true)
  expect(texts?.body.refused[0]?.message).toMatch(/at most \d+ values/)
  expect([bare?.status, bare?.body.code, bare?.body.errors[0]?.field]).toEqual([413, 'too-large', 'body'])
  expect(deep?.body.refused[0]?.message).toMatch(/64 levels/)
  expect([points?.status, points?.body.code]).toEqual([413, 'too-large'])
  expect((await h.call('POST', '/models', JSON.parse('[]'))).status).toBe(400)
  // Where it was all done on the spot, the first of them kept everybody waiting for a minute.
  expect(longest).toBeLessThan(3000)
}, 180_000)

test('no more wait for a thread than may; those beyond are told so at once', async () => {
  const answers = await Promise.all(
    Array.from({ length: 30 }, () => send('/documents/preview', JSON.stringify({ text: '{}' }), JSON_TYPE)),
  )
  const by = (status: number): number => answers.filter((a) => a.status === status).length
  expect(by(200) + by(503)).toBe(30)
  expect(by(200)).toBeGreaterThanOrEqual(8)
  expect(by(200)).toBeLessThan(30)
  expect(answers.find((a) => a.status === 503)?.body.code).toBe('busy')
}, 60_000)

test('a body longer than its route takes is refused before it is read', async () => {
  const r = await send('/imports', Buffer.alloc(13 * 1024 * 1024, 0x20), JSON_TYPE)
  expect([r.status, r.body.code, r.body.errors[0]?.field]).toEqual([413, 'too-large', 'body'])
})
