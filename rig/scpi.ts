import { FAULTS, MODELS, SENSORS, type Bench, type Fault, type Sensor } from './bench'

/** SCPI's not-a-number, given for a sensor that is not there (SCPI-99 7.2.1.4). */
export const NOT_A_NUMBER = 9.91e37

/** Errors of SCPI-99, volume 2, chapter 21, as far as this bench can make them. */
const ERRORS = {
  [-108]: 'Parameter not allowed',
  [-109]: 'Missing parameter',
  [-113]: 'Undefined header',
  [-222]: 'Data out of range',
  [-224]: 'Illegal parameter value',
  [-241]: 'Hardware missing',
  [-350]: 'Queue overflow',
} as const
type ErrorCode = keyof typeof ERRORS

/** Effect of a command; a string is its answer, undefined none, `silent` an answer that never comes. */
type Handler = (parameter: string, s: Session) => string | undefined

/** The state of one connection: the bench, shared, and an error queue of its own. */
export interface Session {
  readonly bench: Bench
  readonly errors: ErrorCode[]
}

const fail = (s: Session, code: ErrorCode): undefined => {
  if (s.errors.length < 20) s.errors.push(code)
  else s.errors[19] = -350
  return undefined
}

const number = (v: number): string => v.toExponential(8).toUpperCase()

const measure =
  (sensor: Sensor): Handler =>
  (_p, s) => {
    const answer = s.bench.read(sensor)
    if (answer === 'silent') return undefined
    if (answer === 'missing') {
      fail(s, -241)
      return number(NOT_A_NUMBER)
    }
    return number(answer.value)
  }

/** A setting that is a number within limits. */
const numeric =
  (min: number, max: number, set: (b: Bench, v: number) => void): Handler =>
  (p, s) => {
    const v = Number(p)
    if (!p.trim()) return fail(s, -109)
    if (!Number.isFinite(v) || v < min || v > max) return fail(s, -222)
    set(s.bench, v)
    s.bench.settle()
    return undefined
  }

/** A setting that is one of some words. */
const oneOf =
  <T extends string>(words: readonly T[], set: (b: Bench, v: T) => void): Handler =>
  (p, s) => {
    const word = words.find((w) => w === p.trim().toUpperCase())
    if (!word) return fail(s, p.trim() ? -224 : -109)
    set(s.bench, word)
    s.bench.settle()
    return undefined
  }

const STATES = { EMPTY: 'empty', SHIP: 'as-shipped', PROP: 'proposed', DIRTY: 'dirty' } as const

/** Headers in SCPI notation: the capitals are the short form, the whole word the long one. */
const COMMANDS: readonly (readonly [header: string, handler: Handler])[] = [
  ['*IDN?', () => 'Ypsometer,Simulated bench,1,1'],
  ['*RST', (_p, s) => void Object.assign(s.bench, { running: true, noise: 1, drift: 0, meterFactor: 1 })],
  ['*CLS', (_p, s) => void s.errors.splice(0)],
  ['*OPC?', () => '1'],
  ['SYSTem:VERSion?', () => '1999.0'],
  [
    'SYSTem:ERRor?',
    (_p, s) => {
      const code = s.errors.shift()
      return code === undefined ? '0,"No error"' : `${code},"${ERRORS[code]}"`
    },
  ],
  ['MEASure:FLOW:PULSes?', measure('FLOW')],
  ['MEASure:MASS?', measure('MASS')],
  ['MEASure:POWer?', measure('POWER')],
  ['MEASure:SOUNd?', measure('SOUND')],
  ['MEASure:PRESsure1?', measure('PRES1')],
  ['MEASure:PRESsure2?', measure('PRES2')],
  ['MEASure:TEMPerature?', measure('TEMP')],
  ['MEASure:AIR?', measure('AIR')],
  ['SCALe:TARE', (_p, s) => void s.bench.tare()],
  ['RIG:MODel?', (_p, s) => `"${s.bench.truth.name}"`],
  ['RIG:CATalog?', () => MODELS.map((m) => `"${m}"`).join(',')],
  [
    'RIG:MODel',
    (p, s) => (s.bench.put(p.trim().replace(/^"|"$/g, '')) ? undefined : fail(s, p.trim() ? -224 : -109)),
  ],
  ['RIG:STATe', oneOf(['EMPTY', 'SHIP', 'PROP', 'DIRTY'], (b, v) => (b.on.state = STATES[v]))],
  ['RIG:HOSes', oneOf(['ON', 'OFF'], (b, v) => (b.on.attached = v === 'ON'))],
  ['RIG:RUN', oneOf(['ON', 'OFF'], (b, v) => (b.running = v === 'ON'))],
  ['RIG:LIFT', numeric(0, 20, (b, v) => (b.on.lift = v))],
  ['RIG:VALVe', numeric(0.01, 1, (b, v) => (b.on.valve = v))],
  ['RIG:TEMPerature', numeric(0, 40, (b, v) => (b.on.temperature = v))],
  ['RIG:AIR', numeric(0, 0.01, (b, v) => (b.airSupply = v))],
  ['RIG:SEED', numeric(0, 2 ** 31, (b, v) => b.reseed(v))],
  ['RIG:NOISe', numeric(0, 50, (b, v) => (b.noise = v))],
  ['RIG:DRIFt', numeric(-1, 1, (b, v) => (b.drift = v))],
  ['RIG:METer', numeric(0.5, 2, (b, v) => (b.meterFactor = v))],
  ['RIG:WAIT', numeric(0, 3600, (b, v) => b.advance(v))],
  [
    'RIG:FAULt',
    (p, s) => {
      const [name = '', word = ''] = p.split(',').map((x) => x.trim().toUpperCase())
      const sensor = SENSORS.find((x) => x === name)
      const fault = FAULTS.find((x) => x === word)
      if (!sensor || !fault) return fail(s, p.trim() ? -224 : -109)
      s.bench.fault(sensor, fault as Fault)
      return undefined
    },
  ],
  [
    'RIG:FAULt?',
    (p, s) => {
      const sensor = SENSORS.find((x) => x === p.trim().toUpperCase())
      return sensor ? s.bench.faultOf(sensor) : fail(s, p.trim() ? -224 : -109)
    },
  ],
]

/** Does a header as sent mean this one? Each word in its short or its long form, in any case. */
export function headerMatches(sent: string, header: string): boolean {
  const [a, b] = [sent.replace(/^:/, '').split(':'), header.split(':')]
  return (
    a.length === b.length &&
    b.every((word, i) => {
      const said = (a[i] ?? '').toUpperCase()
      const short = word.replace(/[a-z]/g, '')
      return said === short || said === word.toUpperCase()
    })
  )
}

/** Carries out one line of commands, joined by semicolons; the answers, joined alike, or null when there is none. */
export function carryOut(line: string, session: Session): string | null {
  const answers: string[] = []
  for (const command of line.split(';')) {
    const m = /^\s*(\S+)\s*(.*?)\s*$/.exec(command)
    if (!m?.[1]) continue
    const [, header, parameter = ''] = m
    const known = COMMANDS.find(([h]) => headerMatches(header, h))
    if (!known) {
      fail(session, -113)
      continue
    }
    const answer = known[1](parameter, session)
    if (answer !== undefined) answers.push(answer)
  }
  return answers.length ? answers.join(';') : null
}
