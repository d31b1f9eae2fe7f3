import fc from 'fast-check'
import { Bench } from './bench'
import { carryOut, headerMatches, NOT_A_NUMBER, type Session } from './scpi'

const open = (seed = 1): Session => ({ bench: new Bench(seed), errors: [] })
const ask = (s: Session, line: string): string => carryOut(line, s) ?? ''
const value = (s: Session, line: string): number => Number(ask(s, line))

describe('SCPI (SCPI-99 volume 1, 5 and 6; IEEE 488.2; from memory)', () => {
  test('short and long forms in any case, with or without the leading colon; nothing between the two', () => {
    for (const h of ['MEAS:POW?', 'measure:power?', ':Meas:Power?'])
      expect(headerMatches(h, 'MEASure:POWer?')).toBe(true)
    for (const h of ['MEASU:POW?', 'MEAS:POWE?', 'MEAS:POW', 'POW?', 'MEAS:POW:X?'])
      expect(headerMatches(h, 'MEASure:POWer?')).toBe(false)
  })
  test('several commands on a line answer in order; an unknown header answers nothing and is in the error queue', () => {
    const s = open()
    expect(ask(s, '*IDN?;SYST:VERS?')).toBe('Ypsometer,Simulated bench,1,1;1999.0')
    expect(carryOut('MEAS:LENGTH?', s)).toBeNull()
    expect(ask(s, 'SYST:ERR?')).toBe('-113,"Undefined header"')
    expect(ask(s, 'SYST:ERR?')).toBe('0,"No error"')
  })
  test('a parameter out of range, missing or no such word is refused by its number, and changes nothing', () => {
    const s = open()
    const before = s.bench.on.lift
    for (const [line, code] of [
      ['RIG:LIFT 99', -222],
      ['RIG:LIFT', -109],
      ['RIG:LIFT high', -222],
      ['RIG:STAT FULL', -224],
      ['RIG:MOD "Nobody’s"', -224],
      ['RIG:FAUL POWER,SLEEPY', -224],
    ] as const) {
      carryOut(line, s)
      expect([line, Number(ask(s, 'SYST:ERR?').split(',')[0])]).toEqual([line, code])
    }
    expect(s.bench.on.lift).toBe(before)
  })
  test('the error queue holds twenty and says when it overflows', () => {
    const s = open()
    for (let i = 0; i < 30; i++) carryOut('NO:SUCH', s)
    expect(s.errors).toHaveLength(20)
    expect(s.errors.at(-1)).toBe(-350)
    carryOut('*CLS', s)
    expect(ask(s, 'SYST:ERR?')).toBe('0,"No error"')
  })
  test('whatever is sent, it neither throws nor hangs', () => {
    const s = open()
    fc.assert(fc.property(fc.string({ maxLength: 80 }), (line) => void carryOut(line, s)))
  })
})

describe('the simulated sensors', () => {
  test('pulses over K and kilograms over density give the hidden flow within a per cent over a minute', () => {
    const s = open(3)
    const from = value(s, 'MEAS:FLOW:PULS?')
    carryOut('SCAL:TARE', s)
    s.bench.advance(60)
    const byPulses = (value(s, 'MEAS:FLOW:PULS?') - from) / 4.5e6 / 60
    const byMass = value(s, 'MEAS:MASS?') / 998 / 60
    expect(Math.abs(byPulses / s.bench.trueFlow - 1)).toBeLessThan(0.01)
    expect(Math.abs(byMass / s.bench.trueFlow - 1)).toBeLessThan(0.01)
  })
  test('the same seed gives the same readings; another one others', () => {
    const run = (seed: number): string => {
      const s = open(seed)
      s.bench.advance(5)
      return ask(s, 'MEAS:POW?;MEAS:SOUN?;MEAS:TEMP?')
    }
    expect(run(5)).toBe(run(5))
    expect(run(5)).not.toBe(run(6))
  })
  test('lift, media, a tap and the switch each cost flow; a 60 s wait is 60 s of water', () => {
    const s = open()
    const flow = (): number => s.bench.trueFlow
    const bare = flow()
    carryOut('RIG:LIFT 0.8', s)
    const lifted = flow()
    carryOut('RIG:HOS ON;RIG:STAT SHIP', s)
    const loaded = flow()
    carryOut('RIG:VALV 0.4', s)
    expect(lifted).toBeLessThan(bare)
    expect(loaded).toBeLessThan(lifted)
    expect(flow()).toBeLessThan(loaded)
    carryOut('RIG:RUN OFF', s)
    expect(flow()).toBe(0)
  })
  test('a stuck sensor repeats itself, a missing one is SCPI’s not-a-number with an error, never zero', () => {
    const s = open()
    carryOut('RIG:FAUL POWER,STUCK', s)
    const first = ask(s, 'MEAS:POW?')
    s.bench.advance(30)
    expect(ask(s, 'MEAS:POW?')).toBe(first)
    carryOut('RIG:FAUL TEMP,DISC', s)
    expect(value(s, 'MEAS:TEMP?')).toBe(NOT_A_NUMBER)
    expect(ask(s, 'SYST:ERR?')).toBe('-241,"Hardware missing"')
    carryOut('RIG:FAUL POWER,OK', s)
    expect(ask(s, 'MEAS:POW?')).not.toBe(first)
  })
  test('a sensor that drops out leaves about three in ten questions unanswered', () => {
    const s = open(11)
    carryOut('RIG:FAUL SOUND,DROP', s)
    const answers = Array.from({ length: 400 }, () => carryOut('MEAS:SOUN?', s))
    const silent = answers.filter((a) => a === null).length / 400
    expect(Math.abs(silent - 0.3)).toBeLessThan(0.07)
  })
  test('a meter four per cent off counts four per cent more pulses of the same water', () => {
    const count = (factor: number): number => {
      const s = open(9)
      carryOut(`RIG:MET ${factor}`, s)
      s.bench.advance(120)
      return value(s, 'MEAS:FLOW:PULS?')
    }
    expect(count(1.04) / count(1)).toBeCloseTo(1.04, 4)
  })
  test('the leaking air sponge lifts less for its air than its riser could', () => {
    const s = open()
    carryOut('RIG:MOD "Bellows S2"', s)
    const leaky = s.bench.trueFlow
    expect(leaky).toBeGreaterThan(0)
    carryOut('RIG:AIR 0.00006', s)
    expect(s.bench.trueFlow).toBeGreaterThan(leaky)
  })
})
