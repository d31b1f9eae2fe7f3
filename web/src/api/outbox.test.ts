import '../../tests/setup'
import { IDBFactory } from 'fake-indexeddb'
import type { ResourceName, RowOf } from '@ypsometer/contract'
import { noRoom } from './room'
import { makeOutbox } from './outbox'
import { overlay, fieldsOf, type Entry, type Write } from './outboxPolicy'

type Outbox = ReturnType<typeof makeOutbox>

interface Sent {
  readonly method: string
  readonly path: string
  readonly body: Record<string, unknown>
  readonly key: string
  readonly version: string | undefined
}
type Answer = { status: number; body: unknown } | 'away' | 'never'

let outbox: Outbox
let sent: Sent[]
let acknowledged: { row: object }[]
let merged: number
let answer: (s: Sent) => Answer

/** A closed page takes its pending retries with it; the module under test has no other way to know it was closed. */
const pending = new Set<ReturnType<typeof setTimeout>>()
const realTimeout = globalThis.setTimeout
globalThis.setTimeout = ((work: () => void, ms = 0) => {
  const timer = realTimeout(work, ms)
  if (ms >= 1000) pending.add(timer)
  return timer
}) as typeof setTimeout
const closePage = (): void => {
  pending.forEach((t) => clearTimeout(t))
  pending.clear()
}

/** A fresh page: an outbox of its own, the device's storage kept unless `wipe`. */
async function openPage(wipe = true): Promise<void> {
  closePage()
  if (wipe) globalThis.indexedDB = new IDBFactory()
  outbox = makeOutbox()
  outbox.start({
    acknowledged: (_collection, row) => acknowledged.push({ row }),
    merged: () => merged++,
  })
  await settle()
}

/** Waits until nothing has moved for a good many turns of the event loop, however slow the machine. */
const settle = async (): Promise<void> => {
  let before = ''
  for (let quiet = 0, turns = 0; quiet < 30 && turns < 2000; turns++) {
    await new Promise((r) => setTimeout(r, 2))
    const now = JSON.stringify([sent?.length, acknowledged?.length, outbox.held.get().mine])
    quiet = now === before ? quiet + 1 : 0
    before = now
  }
}

afterAll(closePage)
beforeEach(async () => {
  sent = []
  acknowledged = []
  merged = 0
  answer = (s) => ({ status: s.method === 'POST' ? 201 : 200, body: { id: 'r1', version: 7, ...s.body } })
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit) => {
    const headers = init.headers as Record<string, string>
    const s: Sent = {
      method: init.method ?? 'GET',
      path: url.replace('/api/v1', ''),
      body: init.body ? (JSON.parse(init.body as string) as Record<string, unknown>) : {},
      key: headers['idempotency-key'] ?? '',
      version: headers['if-match'],
    }
    sent.push(s)
    const a = answer(s)
    if (a === 'away') throw new TypeError('network')
    if (a === 'never') return new Promise<Response>(() => undefined)
    return { ok: a.status < 400, status: a.status, statusText: '', json: async () => a.body } as Response
  }) as typeof fetch
  await openPage()
})

const patch = (body: object, base: object = {}, rowId = 'r1'): void =>
  outbox.enqueue({ method: 'PATCH', collection: 'models', rowId, body, version: 3, base })
const post = (collection: ResourceName, id: string): void =>
  outbox.enqueue({ method: 'POST', collection, rowId: id, body: { id }, row: { id }, version: 0 } as Write)
const entries = (): readonly Entry[] => outbox.held.get().mine

test('a change is sent once, under its version and a key, and acknowledged', async () => {
  patch({ note: 'a' })
  await settle()
  expect(sent).toEqual([
    { method: 'PATCH', path: '/models/r1', body: { note: 'a' }, key: expect.any(String), version: '"3"' },
  ])
  expect(acknowledged[0]?.row).toMatchObject({ id: 'r1', version: 7 })
  expect(outbox.held.get().state).toBe('saved')
})

test('changes typed before the first is sent travel together', async () => {
  patch({ note: 'a', typed: { note: 'a' } })
  patch({ name: 'b', typed: { name: 'b' } })
  await settle()
  expect(sent).toHaveLength(1)
  expect(sent[0]?.body).toEqual({ note: 'a', name: 'b', typed: { note: 'a', name: 'b' } })
})

test('while the server is away everything stays on the device, in order, and is sent once when it is back', async () => {
  answer = () => 'away'
  post('trials', 't1')
  await settle()
  for (const id of ['a', 'b']) post('readings', id)
  await settle()
  expect(outbox.held.get().state).toBe('kept')
  expect(entries()).toHaveLength(3)
  const firstKey = sent[0]?.key

  // The page is closed and opened again: the device still has them.
  await openPage(false)
  expect(entries().map((e) => e.rowId)).toEqual(['t1', 'a', 'b'])

  sent = []
  answer = (s) => ({ status: 201, body: { ...s.body, version: 1 } })
  await outbox.flush()
  await settle()
  expect(sent.map((s) => s.body.id)).toEqual(['t1', 'a', 'b'])
  expect(sent[0]?.key).toBe(firstKey)
  expect(outbox.held.get().state).toBe('saved')
})

test('a lost acknowledgement is asked for again under the same key', async () => {
  let lost = true
  answer = (s) => {
    if (lost) {
      lost = false
      return 'away'
    }
    return { status: 200, body: { id: 'r1', version: 4, ...s.body } }
  }
  patch({ note: 'a' })
  await settle()
  await outbox.flush()
  await settle()
  expect(sent).toHaveLength(2)
  expect(new Set(sent.map((s) => s.key)).size).toBe(1)
})

test('what a page sent as it was closed is not sent again under its key with more in it', async () => {
  const known = new Map<string, unknown>()
  let row: Record<string, unknown> = { id: 'r1', version: 3 }
  /** A server that does each key once, refuses a key used for something else, and a change of what has changed. */
  const server = (s: Sent): Answer => {
    const request = JSON.stringify(s.body)
    if ((known.get(s.key) ?? request) !== request)
      return { status: 422, body: { status: 422, code: 'key-reused', title: 'key used for another write' } }
    if (!known.has(s.key)) {
      if (s.version !== `"${Number(row.version)}"`)
        return { status: 409, body: { status: 409, code: 'stale', title: 'stale', current: row } }
      known.set(s.key, request)
      row = { ...row, ...s.body, version: Number(row.version) + 1 }
    }
    return { status: 200, body: row }
  }
  answer = (s) => (server(s), 'never')
  patch({ note: 'a' }, { note: null })
  await settle()
  expect(row).toMatchObject({ note: 'a' })

  // The next page types into the same row before it may send anything.
  closePage()
  outbox = makeOutbox()
  outbox.setWriter(null)
  outbox.start({ acknowledged: () => undefined, merged: () => merged++ })
  await settle()
  expect(entries()).toHaveLength(1)
  answer = server
  patch({ name: 'b' }, { name: null })
  await settle()
  outbox.setWriter({ id: 'edda', name: 'Edda', visitor: false, reads: false })
  await settle()
  expect(outbox.held.get().state).toBe('saved')
  expect(row).toMatchObject({ note: 'a', name: 'b' })
  await openPage(false)
  expect(entries()).toHaveLength(0)
})

test('a later change of our own rides on the version the first one made', async () => {
  let calls = 0
  answer = (s) =>
    calls++ === 0
      ? 'away'
      : { status: 200, body: { id: 'r1', version: Number(s.version?.replace(/"/g, '')) + 1, ...s.body } }
  patch({ note: 'a' })
  await settle()
  patch({ note: 'b' })
  await outbox.flush()
  await settle()
  expect(sent.slice(1).map((s) => [s.body.note, s.version])).toEqual([
    ['a', '"3"'],
    ['b', '"4"'],
  ])
})

const stale = (current: Record<string, unknown>): Answer => ({
  status: 409,
  body: { status: 409, code: 'stale', title: 'stale', current: { id: 'r1', version: 9, ...current } },
})

test('a stale change to another field is made again without asking', async () => {
  answer = (s) =>
    s.version === '"3"'
      ? stale({ note: 'theirs', name: 'old' })
      : { status: 200, body: { id: 'r1', version: 10, ...s.body } }
  patch({ name: 'mine' }, { name: 'old' })
  await settle()
  expect(sent.map((s) => s.version)).toEqual(['"3"', '"9"'])
  expect(merged).toBe(1)
  expect(outbox.held.get().state).toBe('saved')
})

describe('a stale change to the same field', () => {
  beforeEach(async () => {
    answer = (s) =>
      s.version === '"3"'
        ? stale({ note: 'theirs' })
        : { status: 200, body: { id: 'r1', version: 10, ...s.body } }
    patch({ note: 'mine' }, { note: 'old' })
    await settle()
  })
  test('waits for the person, overwriting nothing', () => {
    expect(sent).toHaveLength(1)
    expect(outbox.held.get().state).toBe('needs-you')
    expect(entries()[0]).toMatchObject({ state: 'conflict', version: 9 })
  })
  test('keep mine: sent on top of theirs under a new key', async () => {
    outbox.resolve(entries()[0]?.key ?? '', 'mine')
    await settle()
    expect(sent.map((s) => s.version)).toEqual(['"3"', '"9"'])
    expect(sent[1]?.body).toEqual({ note: 'mine' })
    expect(new Set(sent.map((s) => s.key)).size).toBe(2)
  })
  test('take theirs: mine is let go', async () => {
    outbox.resolve(entries()[0]?.key ?? '', 'theirs')
    await settle()
    expect(sent).toHaveLength(1)
    expect(outbox.held.get().state).toBe('saved')
  })
  test('typing again takes the place of the parked change', async () => {
    patch({ note: 'newer' }, { note: 'theirs' })
    await settle()
    expect(entries().every((e) => e.state === 'waiting' || fieldsOf(e).note === 'newer')).toBe(true)
  })
})

test('a refusal stays with its reason and does not hold up the rest', async () => {
  answer = (s) =>
    s.body.name === ''
      ? {
          status: 400,
          body: { status: 400, title: 'no', errors: [{ field: 'name', message: 'at least one character' }] },
        }
      : { status: 200, body: { id: 'x', version: 2 } }
  patch({ name: '' })
  await settle()
  patch({ note: 'fine' }, {}, 'r2')
  await settle()
  expect(sent).toHaveLength(2)
  expect(entries()).toHaveLength(1)
  expect(entries()[0]).toMatchObject({ state: 'refused', problem: { errors: [{ field: 'name' }] } })
})

test('what was sent along with a refused field goes on once that field is mended', async () => {
  answer = (s) =>
    s.body.name === ''
      ? {
          status: 400,
          body: { status: 400, title: 'no', errors: [{ field: 'name', message: 'at least one character' }] },
        }
      : { status: 200, body: { id: 'r1', version: 4 } }
  patch({ note: 'fine' })
  patch({ name: '' })
  await settle()
  // Whatever way the two were sent, nothing of them is lost, and only the wrong one is refused.
  patch({ name: 'mended' })
  await settle()
  expect(entries()).toEqual([])
  const taken = sent.filter((s) => s.body.name !== '').map((s) => s.body)
  expect(Object.assign({}, ...taken)).toMatchObject({ note: 'fine', name: 'mended' })
})

test('a fault of the server is tried again, not given up', async () => {
  answer = () => ({ status: 500, body: { status: 500, title: 'fault' } })
  patch({ note: 'a' })
  await settle()
  expect(entries()[0]).toMatchObject({ state: 'waiting', tries: 1 })
  expect(outbox.held.get().state).toBe('kept')
})

test('a write that the server fails at again and again is set aside with its reason, and the rest goes on', async () => {
  answer = (s) =>
    s.body.note === 'a'
      ? { status: 500, body: { status: 500, code: 'fault', title: 'Something failed on our side' } }
      : { status: 200, body: { id: 'r2', version: 2 } }
  patch({ note: 'a' })
  patch({ note: 'b' }, {}, 'r2')
  for (let i = 0; i < 3; i++) {
    await settle()
    await outbox.flush()
  }
  await settle()
  expect(entries()).toHaveLength(1)
  expect(entries()[0]).toMatchObject({ state: 'refused', problem: { code: 'fault' }, body: { note: 'a' } })
  expect(outbox.held.get().state).toBe('needs-you')
  // Sent again by hand, it has a fresh start.
  answer = () => ({ status: 200, body: { id: 'r1', version: 4 } })
  outbox.resolve(entries()[0]?.key ?? '', 'mine')
  await settle()
  expect(entries()).toHaveLength(0)
})

test('a server that is away, however long, sets nothing aside', async () => {
  answer = () => ({ status: 503, body: { status: 503, code: 'database-away', title: 'away' } })
  patch({ note: 'a' })
  for (let i = 0; i < 6; i++) {
    await settle()
    await outbox.flush()
  }
  expect(entries()[0]).toMatchObject({ state: 'waiting' })
})

test('a field being typed in is not called saved', () => {
  outbox.setTyping('models.r1.note', true)
  expect(outbox.held.get().state).toBe('saving')
  outbox.setTyping('models.r1.note', false)
  expect(outbox.held.get().state).toBe('saved')
})

describe('what waits is laid over what the server said', () => {
  const stamp = { version: 3, createdAt: '', updatedAt: '', deletedAt: null }
  const row = (id: string): RowOf<'hookups'> => ({
    ...stamp, id, modelId: 'm', name: 'old', outletAboveWater: 0, sourceBelowWater: 0, bodyBelowWater: 0, segments: [], fitted: {}, typed: { a: '1' },
  }) // prettier-ignore
  const entry = (e: object): Entry =>
    ({ key: 'k', order: 1, method: 'PATCH', collection: 'hookups', rowId: 'r1', body: {}, version: 3, base: {}, state: 'waiting', tries: 0, ...e }) as Entry // prettier-ignore
  test('changes, creations and deletions, in order', () => {
    const shown = overlay([row('r1'), row('r2')], 'hookups', [
      entry({ body: { name: 'new', typed: { b: '2' } } }),
      entry({ method: 'POST', rowId: 'r3', body: { id: 'r3' }, row: { ...row('r3'), name: 'made' } }),
      entry({ method: 'DELETE', rowId: 'r2' }),
    ])
    expect(shown.map((r) => [r.id, r.name])).toEqual([
      ['r1', 'new'],
      ['r3', 'made'],
    ])
    expect(shown[0]?.typed).toEqual({ a: '1', b: '2' })
  })
  test('a refused change is not shown as if it held, and another collection’s is none of ours', () => {
    const name = (e: object): string | undefined => overlay([row('r1')], 'hookups', [entry(e)])[0]?.name
    expect(name({ body: { name: 'x' }, state: 'refused' })).toBe('old')
    expect(name({ body: { name: 'x' }, collection: 'fills' })).toBe('old')
  })
})

test('an undone deletion is sent as a restore on the version the deletion made', async () => {
  answer = (s) => ({
    status: 200,
    body: { id: 'r1', version: s.method === 'DELETE' ? 4 : 5, deletedAt: null },
  })
  outbox.enqueue({ method: 'DELETE', collection: 'models', rowId: 'r1', version: 3 })
  await settle()
  outbox.enqueue({ method: 'RESTORE', collection: 'models', rowId: 'r1', version: 4 })
  await settle()
  expect(sent.map((s) => [s.method, s.path, s.version])).toEqual([
    ['DELETE', '/models/r1', '"3"'],
    ['POST', '/models/r1/restore', '"4"'],
  ])
})

describe('who wrote it sends it', () => {
  const edda = { id: 'edda', name: 'Edda', visitor: false, reads: false }
  const orla = { id: 'orla', name: 'Orla', visitor: false, reads: false }
  const turnedAway = (): Answer => ({
    status: 401,
    body: { type: 'urn:ypsometer:sign-in', title: 'Sign in first', status: 401, code: 'sign-in' },
  })

  test('until it is known who is here, nothing is sent; then it is', async () => {
    outbox.setWriter(null)
    patch({ note: 'a' })
    await settle()
    expect([sent.length, outbox.held.get().state]).toEqual([0, 'kept'])
    outbox.setWriter(edda)
    await settle()
    expect(sent).toHaveLength(1)
    expect(outbox.held.get().state).toBe('saved')
  })

  test('a session that ends midway keeps what was typed, in order, until the same person is back', async () => {
    outbox.setWriter(edda)
    answer = turnedAway
    patch({ note: 'a' })
    await settle()
    patch({ name: 'b' }, {}, 'r2')
    await settle()
    expect(sent).toHaveLength(1)
    expect(outbox.held.get().state).toBe('kept')
    // Still on her screen, so still laid over what the server says.
    expect(entries().map((e) => e.rowId)).toEqual(['r1', 'r2'])
    answer = (s) => ({ status: 200, body: { id: s.path.slice(-2), version: 8, ...s.body } })
    outbox.setWriter(edda)
    await settle()
    expect(sent.slice(1).map((s) => s.body)).toEqual([{ note: 'a' }, { name: 'b' }])
    expect(outbox.held.get().state).toBe('saved')
  })

  test('somebody else at the same device neither sends nor sees it as theirs, not even after a fresh start', async () => {
    outbox.setWriter(edda)
    answer = turnedAway
    patch({ note: 'hers' })
    await settle()
    await openPage(false)
    answer = (s) => ({ status: 200, body: { id: 'r1', version: 8, ...s.body } })
    sent = []
    outbox.setWriter(orla)
    await settle()
    expect([sent.length, entries().length, outbox.held.get().state]).toEqual([0, 0, 'saved'])
    expect(outbox.held.get().others).toMatchObject([{ byName: 'Edda', body: { note: 'hers' } }])
    // A change of the same row by the other is an entry of its own.
    patch({ note: 'mine' })
    await settle()
    expect(sent.map((s) => s.body)).toEqual([{ note: 'mine' }])
    expect(outbox.held.get().others).toHaveLength(1)
    outbox.setWriter(edda)
    await settle()
    expect(sent.map((s) => s.body)).toEqual([{ note: 'mine' }, { note: 'hers' }])
    expect(outbox.held.get().others).toHaveLength(0)
  })

  test('when another window has signed somebody else in, nothing is written under their name', async () => {
    outbox.setWriter(edda)
    const writers: (string | undefined)[] = []
    const real = globalThis.fetch
    globalThis.fetch = jest.fn((url: string, init: RequestInit) => {
      writers.push((init.headers as Record<string, string>)['x-writer'])
      return real(url, init)
    }) as typeof fetch
    answer = () => ({
      status: 409,
      body: { type: 'urn:ypsometer:other-writer', title: 'Somebody else', status: 409, code: 'other-writer' },
    })
    patch({ note: 'hers' })
    await settle()
    expect([writers, outbox.held.get().state, outbox.held.get().writer]).toEqual([['edda'], 'kept', null])
    answer = (s) => ({ status: 200, body: { id: 'r1', version: 8, ...s.body } })
    outbox.setWriter(orla)
    await settle()
    expect([writers.length, outbox.held.get().others.length]).toEqual([1, 1])
  })

  test('what a visitor wrote on this machine goes with whoever owns the bench next', async () => {
    outbox.setWriter({ id: 'visitor', name: 'Demo editor', visitor: true, reads: false })
    answer = () => 'away'
    patch({ note: 'a' })
    await settle()
    answer = (s) => ({ status: 200, body: { id: 'r1', version: 8, ...s.body } })
    outbox.setWriter(orla)
    await settle()
    expect(sent.at(-1)?.body).toEqual({ note: 'a' })
    expect(outbox.held.get().others).toHaveLength(0)
  })

  test('an entry of somebody else can be let go of', async () => {
    outbox.setWriter(edda)
    answer = turnedAway
    patch({ note: 'hers' })
    await settle()
    outbox.setWriter(orla)
    const [hers] = outbox.held.get().others
    outbox.discard(hers?.key ?? '')
    await settle()
    await openPage(false)
    outbox.setWriter(orla)
    expect(outbox.held.get().others).toHaveLength(0)
  })

  test('one who may only read is told so, and the change waits for a decision', async () => {
    answer = () => ({
      status: 403,
      body: {
        type: 'urn:ypsometer:not-yours',
        title: 'That needs an editor',
        status: 403,
        code: 'not-yours',
      },
    })
    outbox.setWriter({ ...edda, reads: true })
    patch({ note: 'a' })
    await settle()
    expect(entries()).toMatchObject([{ state: 'refused', problem: { title: 'That needs an editor' } }])
  })
})

describe('a device that keeps nothing', () => {
  const put = IDBObjectStore.prototype.put
  const full = (): void => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('no room', 'QuotaExceededError')
    }
  }
  afterEach(() => {
    IDBObjectStore.prototype.put = put
    noRoom.set(false)
  })
  const leaves = (): boolean => {
    const event = new Event('beforeunload', { cancelable: true })
    window.dispatchEvent(event)
    return !event.defaultPrevented
  }

  test('what it refuses is sent from memory at once', async () => {
    full()
    patch({ note: 'a' })
    await settle()
    expect(sent.map((s) => s.body)).toEqual([{ note: 'a' }])
    expect([outbox.held.get().state, noRoom.get(), leaves()]).toEqual(['saved', true, true])
  })
  test('with the server away as well it is said, not forgotten by another window’s news, and sent when it is back', async () => {
    let hear: (() => void) | undefined
    Object.assign(window, {
      BroadcastChannel: class {
        postMessage = (): void => undefined
        addEventListener = (_: string, to: () => void): void => void (hear = to)
      },
    })
    await openPage()
    Reflect.deleteProperty(window, 'BroadcastChannel')
    full()
    answer = () => 'away'
    patch({ note: 'a' })
    await settle()
    expect([outbox.held.get().state, noRoom.get(), leaves()]).toEqual(['no-room', true, false])
    hear?.()
    await settle()
    expect(entries()).toHaveLength(1)
    answer = (s) => ({ status: 200, body: { id: 'r1', version: 7, ...s.body } })
    await outbox.flush()
    await settle()
    expect([acknowledged.length, entries().length, outbox.held.get().state, leaves()]).toEqual([
      1,
      0,
      'saved',
      true,
    ])
  })
  test('with room again what was refused is kept for the next page', async () => {
    full()
    answer = () => 'away'
    patch({ note: 'a' })
    await settle()
    IDBObjectStore.prototype.put = put
    post('trials', 't1')
    await settle()
    expect([outbox.held.get().state, noRoom.get()]).toEqual(['kept', false])
    await openPage(false)
    expect(entries().map((e) => e.rowId)).toEqual(['r1', 't1'])
  })
  test('a device without a database, as in a private window, sends all the same', async () => {
    globalThis.indexedDB = { open: () => { throw new DOMException('denied', 'SecurityError') } } as unknown as IDBFactory // prettier-ignore
    await openPage(false)
    post('trials', 't1')
    await settle()
    expect([sent.length, outbox.held.get().state, noRoom.get()]).toEqual([1, 'saved', true])
  })
})
