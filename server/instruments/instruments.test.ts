import { Bench } from '@ypsometer/rig/bench'
import { carryOut, type Session } from '@ypsometer/rig/scpi'
import type { InstrumentFrame } from '@ypsometer/contract'
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { harness, type Harness } from '../tests/harness'
import { ScpiClient } from './client'
import { InstrumentHub } from './hub'

/** The simulated bench on a port of its own, in this process, so that its hidden state can be set. */
async function openRig(seed = 1) {
  const bench = new Bench(seed)
  const sockets = new Set<Socket>()
  const errors: Session['errors'] = []
  /** Answers held back (ms), and whether any are given. */
  const how = { late: 0 }
  const server: Server = createServer((socket) => {
    sockets.add(socket)
    let rest = ''
    socket.on('error', () => undefined)
    socket.on('data', (d) => {
      rest += String(d)
      const lines = rest.split('\n')
      rest = lines.pop() ?? ''
      for (const line of lines) {
        bench.advance(0.5)
        const answer = carryOut(line, { bench, errors })
        if (answer !== null) setTimeout(() => socket.write(`${answer}\n`), how.late)
      }
    })
  })
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r))
  const { port } = server.address() as AddressInfo
  const close = async (): Promise<void> => {
    sockets.forEach((s) => s.destroy())
    await new Promise((r) => server.close(r))
  }
  return { bench, errors, how, port, close }
}
type Rig = Awaited<ReturnType<typeof openRig>>

let rig: Rig
beforeEach(async () => {
  rig = await openRig()
})
afterEach(() => rig.close())

const at = (port: number) => ({ host: '127.0.0.1', port })

describe('the SCPI client', () => {
  test('questions asked at once are answered each with its own', async () => {
    const client = new ScpiClient(at(rig.port))
    const [id, version, watts] = await Promise.all([
      client.ask('*IDN?'),
      client.ask('SYST:VERS?'),
      client.measure('MEAS:POW?'),
    ])
    expect(id).toContain('Simulated bench')
    expect(version).toBe('1999.0')
    expect(watts).toBeGreaterThan(1)
    client.close()
  })
  test('an answer too late is not taken for the next one’s: the line is dropped and opened anew', async () => {
    const client = new ScpiClient({ ...at(rig.port), timeout: 80 })
    rig.how.late = 200
    await expect(client.ask('*IDN?')).rejects.toThrow('no answer to *IDN?')
    rig.how.late = 0
    await expect(client.ask('SYST:VERS?')).resolves.toBe('1999.0')
    client.close()
  })
  test('a missing sensor is missing, not 9.91E37; an objection of the instrument is passed on', async () => {
    const client = new ScpiClient(at(rig.port))
    await client.tell('RIG:FAUL TEMP,DISC')
    await expect(client.measure('MEAS:TEMP?')).resolves.toBe('missing')
    await expect(client.errors()).resolves.toEqual(['-241,"Hardware missing"'])
    await expect(client.tell('RIG:LIFT 99')).resolves.toBe('-222,"Data out of range"')
    await expect(client.tell('RIG:LIFT 0.5')).resolves.toBeNull()
    client.close()
  })
  test('nobody there is said, and it is found when it comes', async () => {
    const { port } = rig
    await rig.close()
    const client = new ScpiClient(at(port))
    await expect(client.ask('*IDN?')).rejects.toThrow('no connection')
    client.close()
    rig = await openRig()
  })
})

describe('the hub', () => {
  const until = (hub: InstrumentHub, wanted: (f: InstrumentFrame) => boolean) =>
    new Promise<InstrumentFrame>((resolve, reject) => {
      const timer = setTimeout(() => reject(new Error(`not seen; last ${JSON.stringify(hub.frame)}`)), 15000)
      const stop = hub.watch((f) => {
        if (!wanted(f)) return
        clearTimeout(timer)
        setTimeout(() => stop(), 0)
        resolve(f)
      })
    })

  test('all eight sensors are live, in SI', async () => {
    const hub = new InstrumentHub(at(rig.port))
    const f = await until(hub, (x) => x.link === 'up')
    expect(Object.values(f.sensors).map((s) => s.state)).toEqual(
      expect.arrayContaining(['live', 'live', 'live', 'live', 'live', 'live', 'live']),
    )
    expect(f.sensors.temperature?.value).toBeCloseTo(21.5, 0)
    hub.close()
  })
  test('stuck, missing and silent are told apart, each without a value', async () => {
    const hub = new InstrumentHub(at(rig.port))
    rig.bench.fault('POWER', 'STUCK')
    rig.bench.fault('TEMP', 'DISC')
    const f = await until(hub, (x) => x.sensors.power?.state === 'stuck')
    expect(f.sensors.power).toEqual({ state: 'stuck', value: null })
    expect(f.sensors.temperature).toEqual({ state: 'missing', value: null })
    expect(f.sensors.sound?.state).toBe('live')
    rig.bench.fault('SOUND', 'DROP')
    await until(hub, (x) => x.sensors.sound?.state === 'silent')
    hub.close()
  })
  test('a dead bench is down, not zero; it is live again when it is back', async () => {
    const hub = new InstrumentHub(at(rig.port))
    await until(hub, (x) => x.link === 'up')
    const { port } = rig
    await rig.close()
    const down = await until(hub, (x) => x.link === 'down')
    expect(down.trouble).toContain(`No instrument answers at 127.0.0.1:${port}`)
    expect(Object.values(down.sensors).every((s) => s.value === null)).toBe(true)
    rig = await openRig()
    hub.move(at(rig.port))
    await until(hub, (x) => x.link === 'up')
    hub.close()
  })
  test('without an address it is off', async () => {
    const hub = new InstrumentHub({ host: '', port: 5025 })
    expect((await until(hub, (x) => x.link === 'off')).trouble).toBe('')
    await expect(hub.tell('*RST')).rejects.toThrow('no instrument is set')
    hub.close()
  })
})

describe('the routes', () => {
  let h: Harness
  const hosts: string[] = []
  beforeEach(() => void hosts.push(`127.0.0.1:${rig.port}`, '127.0.0.1:1'))
  beforeAll(async () => {
    h = await harness({ instrumentHosts: hosts })
  })
  afterAll(() => h.close())
  const put = (body: unknown) =>
    h.app.inject({
      method: 'PUT',
      url: '/api/v1/instruments',
      headers: { host: 'localhost' },
      payload: body as object,
    })

  test('an address is kept; a bad one is refused by its field', async () => {
    expect((await h.call('GET', '/instruments')).body).toEqual({ host: '', port: 5025 })
    expect((await put({ host: 'a b', port: 1 })).json().errors[0].field).toBe('host')
    expect((await put({ host: '127.0.0.1', port: 70000 })).json().errors[0].field).toBe('port')
    // An address is no way to find out what listens on this machine.
    expect((await put(at(5432))).json().errors[0].message).toContain('at port 5025')
    expect((await put(at(rig.port))).statusCode).toBe(200)
    expect((await h.call('GET', '/instruments')).body).toEqual(at(rig.port))
  })
  test('a filter is put on the simulated bench; what it refuses is said; away is 503', async () => {
    await put(at(rig.port))
    const done = await h.call('POST', '/instruments/rig', {
      model: 'Ledger 700',
      lift: 0.4,
      attached: true,
      state: 'as-shipped',
    })
    expect(done.body).toEqual({ done: 4 })
    expect(rig.bench.truth.name).toBe('Ledger 700')
    expect(rig.bench.on).toMatchObject({ lift: 0.4, attached: true, state: 'as-shipped' })
    const refused = await h.call('POST', '/instruments/rig', { model: 'Nobody 1' })
    expect(refused.body.errors[0]).toMatchObject({ field: 'model' })
    expect(refused.body.errors[0].message).toContain('Illegal parameter value')
    await put(at(1))
    expect((await h.call('POST', '/instruments/rig', { lift: 0.1 })).status).toBe(503)
  })
})
