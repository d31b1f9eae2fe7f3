import { isAmong } from '../http/onlyFrom'
import { serverEnvironment } from './environment'

const BEYOND = { HOST: '0.0.0.0' }
const ADDRESS = { YPSOMETER_ADDRESS: 'https://bench.example' }
const FRONT = { YPSOMETER_TLS_IN_FRONT: '1' }

test('on this machine nobody signs in unless it is asked for', () => {
  for (const HOST of [undefined, '127.0.0.1', 'localhost', '::1'])
    expect(serverEnvironment({ HOST })).toEqual({ signIn: false, address: undefined, tls: null, proxies: [], onlyFrom: null, metricsToken: undefined }) // prettier-ignore
  expect(serverEnvironment({ YPSOMETER_SIGN_IN: '1' }).signIn).toBe(true)
  expect(serverEnvironment(ADDRESS).signIn).toBe(true)
})

test.each([
  ['no TLS at all', BEYOND, /HOST is 0\.0\.0\.0.*YPSOMETER_TLS_CERT.*YPSOMETER_TLS_IN_FRONT=1/],
  ['no TLS, with an address', { ...BEYOND, ...ADDRESS }, /nothing speaks TLS/],
  ['a certificate without its key', { ...BEYOND, ...ADDRESS, YPSOMETER_TLS_CERT: 'a.pem' }, /go together/],
  ['a key without its certificate', { ...ADDRESS, YPSOMETER_TLS_KEY: 'a.pem' }, /go together/],
  ['no address', { ...BEYOND, ...FRONT }, /YPSOMETER_ADDRESS is not set/],
  ['an address without TLS', { ...BEYOND, ...FRONT, YPSOMETER_ADDRESS: 'http://bench.example' }, /“http:/],
  [
    'an address with a path',
    { ...BEYOND, ...FRONT, YPSOMETER_ADDRESS: 'https://bench.example/a' },
    /is “https:.*\/a”/,
  ],
  ['no address at all', { YPSOMETER_ADDRESS: 'bench' }, /is “bench”/],
  ['a script for an address', { YPSOMETER_ADDRESS: 'javascript:1' }, /is “javascript:1”/],
  ['a token that is soon guessed', { YPSOMETER_METRICS_TOKEN: 'letmein' }, /at least 24 characters/],
])('%s: refused, and it says what is missing', (_what, env, message) => {
  expect(() => serverEnvironment(env)).toThrow(message)
})

test('with TLS of its own or in front, everyone signs in; only what stands in front is believed', () => {
  expect(() => serverEnvironment({ ...BEYOND, ...ADDRESS, ...FRONT })).toThrow(/YPSOMETER_PROXIES/)
  expect(serverEnvironment({ HOST: '127.0.0.1', ...ADDRESS, ...FRONT })).toMatchObject({
    onlyFrom: null,
    signIn: true,
    address: 'https://bench.example',
    proxies: ['127.0.0.1', '::1'],
  })
  const own = { ...BEYOND, ...ADDRESS, YPSOMETER_TLS_CERT: 'a.pem', YPSOMETER_TLS_KEY: 'b.pem' }
  expect(serverEnvironment(own)).toMatchObject({
    signIn: true,
    tls: { cert: 'a.pem', key: 'b.pem' },
    proxies: [],
  })
  expect(serverEnvironment({ ...BEYOND, ...ADDRESS, ...FRONT, YPSOMETER_PROXIES: '10.0.0.1, 10.0.0.2' })).toMatchObject({ proxies: ['10.0.0.1', '10.0.0.2'], onlyFrom: ['10.0.0.1', '10.0.0.2'] }) // prettier-ignore
})

test('only what stands in front and this machine are listened to, by address or network', () => {
  const known = isAmong(['10.0.0.7', '172.20.0.0/16', 'fd00::/8'])
  for (const yes of [
    '10.0.0.7',
    '::ffff:10.0.0.7',
    '172.20.3.4',
    '127.0.0.1',
    '::1',
    '::ffff:127.0.0.1',
    'fd12::1',
  ])
    expect([yes, known(yes)]).toEqual([yes, true])
  for (const no of ['10.0.0.8', '172.21.0.1', '8.8.8.8', '::ffff:8.8.8.8', 'fe80::1', ''])
    expect([no, known(no)]).toEqual([no, false])
})
