import { outcomeOf, pathBase } from '.'
import { uncertainDutyPoint } from '../duty'
import { waterProperties } from '../water'
import { trialResults, type ModelRecord } from '../trials'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const MEDIA = medium('Sintered glass rings')
const FOAM = medium('Coarse foam, 10 ppi')
const meets = (...a: Parameters<typeof caseWith>): number =>
  outcomeOf(caseWith(...a), NORMAL, true).meetsMedia

describe('water that meets media: one stream past several layers is one stream', () => {
  test('the same bed entered as one layer, two or four lets the same share past, and flows the same', () => {
    const bed = (parts: number) =>
      outcomeOf(
        caseWith(
          Array.from({ length: parts }, (_, i) =>
            layer(`m${i}`, 'low', MEDIA, 80 / parts, { gap: 0.003, crossed: false }),
          ),
        ),
        NORMAL,
        true,
      )
    const one = bed(1)
    expect(one.meetsMedia).toBeGreaterThan(0.5)
    expect(one.meetsMedia).toBeLessThan(0.95)
    // In one layer it is the layer's own share, past ÷ all.
    expect(one.meetsMedia).toBeCloseTo(1 - (one.layers[0]?.bypassFraction ?? NaN), 9)
    for (const parts of [2, 4]) {
      expect(bed(parts).meetsMedia).toBeCloseTo(one.meetsMedia, 6)
      expect(bed(parts).flow / one.flow).toBeCloseTo(1, 6)
    }
  })
  test('a layer without a gap in between makes the streams mix: what slips past both is the product (by hand)', () => {
    const o = outcomeOf(
      caseWith([
        layer('a', 'low', MEDIA, 30, { gap: 0.003 }),
        layer('c', 'low', FOAM, 20),
        layer('b', 'low', MEDIA, 30, { gap: 0.003 }),
      ]),
      NORMAL,
      true,
    )
    const [a = NaN, , b = NaN] = o.layers.map((l) => l.bypassFraction)
    expect(o.meetsMedia).toBeCloseTo(1 - a * b, 6)
  })
  test('a gap round a stack of trays is one stream past all of it, until a layer is cut to the wall', () => {
    const trays = [chamber('low', { wallGap: 0.002 }), chamber('high', { wallGap: 0.002 })]
    const stack = (sealed: boolean) =>
      outcomeOf(
        caseWith([layer('a', 'low', MEDIA, 60), layer('b', 'high', MEDIA, 60, { sealed })], {
          chambers: trays,
        }),
        NORMAL,
        true,
      )
    const open = stack(false)
    const [a = NaN, b = NaN] = open.layers.map((l) => l.bypassFraction)
    expect(open.meetsMedia).toBeCloseTo(1 - Math.min(a, b), 6)
    expect(stack(true).meetsMedia).toBe(1)
    // Compartments with walls of their own between them mix: there the two shares multiply.
    const apart = outcomeOf(
      caseWith([layer('a', 'low', MEDIA, 60), layer('b', 'high', MEDIA, 60)], {
        chambers: trays.map((c) => ({ ...c, role: 'compartment' as const })),
      }),
      NORMAL,
      true,
    )
    const [c = NaN, d = NaN] = apart.layers.map((l) => l.bypassFraction)
    expect(apart.meetsMedia).toBeCloseTo(1 - c * d, 6)
  })
  test.each([
    ['wider', 0.002, 0.004],
    ['narrower', 0.004, 0.002],
  ])('round trays of straining and of media, the second gap %s: what goes round the media meets none (by hand)', (_, first, second) => {
    const chambers = [chamber('low', { wallGap: first }), chamber('high', { wallGap: second })]
    const c = caseWith([layer('c', 'low', medium('Coarse foam'), 60), layer('m', 'high', MEDIA, 60)], { chambers })
    const o = outcomeOf(c, NORMAL, true)
    const [low, high] = o.sides
    expect(low?.share).not.toBeCloseTo(high?.share ?? NaN, 3)
    expect(o.meetsMedia).toBeCloseTo(1 - (high?.share ?? NaN), 6)
  }) // prettier-ignore
  test('side by side the shares add by flow; straining alone meets nothing; a weir takes its water past the whole chamber', () => {
    const beside = [chamber('low'), chamber('high', { beside: true })]
    const o = outcomeOf(
      caseWith([layer('a', 'low', MEDIA, 60), layer('b', 'high', FOAM, 30)], { chambers: beside }),
      NORMAL,
      true,
    )
    const through = o.layers[0]?.through ?? NaN
    expect(o.meetsMedia).toBeCloseTo(through / o.flow, 6)
    expect(meets([layer('b', 'high', FOAM, 30)])).toBe(0)
    const slot = chamber('slot', { role: 'cartridge-slot', overflowSill: 0.002 })
    const spilt = outcomeOf(
      caseWith([layer('m', 'slot', MEDIA, 60, { fouled: 0.9 })], { chambers: [slot], kind: 'hang-on-back' }),
      NORMAL,
      true,
    )
    expect(spilt.sides[0]?.share).toBeGreaterThan(0.05)
    expect(spilt.meetsMedia).toBeCloseTo(1 - (spilt.sides[0]?.share ?? NaN), 6)
  })
})

test('with nothing in the body Path doubts a flow by as much as the Bench does', () => {
  const c = caseWith([])
  const { hookup, drive } = c
  if (!hookup) throw new Error('hookup')
  const duty = uncertainDutyPoint(
    {
      pump: drive.pump,
      segments: hookup.segments,
      staticHead: 0,
      fluid: { kinematicViscosity: waterProperties({ temperature: 25 }).kinematicViscosity },
    },
    drive.knowledge,
  )
  const o = outcomeOf(c, NORMAL)
  expect(o.flow / duty.flow).toBeCloseTo(1, 9)
  expect(o.uncertainty / duty.expandedUncertainty).toBeCloseTo(1, 6)
})

describe('a trial that tells how the body behaves', () => {
  const shipped = {
    id: 's',
    name: 'As shipped',
    basis: 'as-shipped',
    layers: [layer('m', 'low', MEDIA, 60)],
  } as const
  const c = caseWith([])
  const hookup = c.hookup as NonNullable<typeof c.hookup>
  const model = (flow: number, more: object = {}): ModelRecord => ({
    kind: 'canister',
    mainsFrequency: 50,
    claims: [],
    hookups: [hookup],
    mediaMass: null,
    trials: [0].map(() => ({
      id: 't',
      state: 'as-shipped' as const,
      hookupId: 'h',
      lift: 0,
      waterTemperature: 22,
      mainsFrequency: 50,
      method: { vessel: 0.01, resolution: 0.01, reaction: 0.05 },
      runs: [0, 0.01, -0.01, 0.004, -0.004].map((e) => ({ volume: 0.01, seconds: (0.01 / flow) * (1 + e) })),
      ...more,
    })),
  })
  const told = (m: ModelRecord) => {
    const trials = trialResults(m)
    const pump = {
      pump: c.drive.pump,
      from: 'label',
      fit: null,
      supposedHead: null,
      bias: { low: 1, high: 1 },
    } as never
    const base = pathBase({ model: m, assessment: { pump, trials }, body: c.body, chambers: c.chambers, media: c.media, fills: [shipped], hookupId: null, fillOfTrial: {} }) // prettier-ignore
    if (base.kind !== 'ready' || !trials[0]) throw new Error('no base')
    return { base: base.base, trial: trials[0].result }
  }
  test('at its own fill the path has the trial’s flow and the trial’s uncertainty, whatever pump, losses and media are doubted by', () => {
    const { base, trial } = told(model(450 / 3.6e6))
    const o = outcomeOf({ ...base, fill: shipped }, NORMAL)
    expect(o.flow / trial.mean).toBeCloseTo(1, 5)
    expect(o.uncertainty / trial.expandedUncertainty).toBeCloseTo(1, 2)
  })
  test('away from it the uncertainty grows, and stays below that of a path nobody told', () => {
    const { base, trial } = told(model(450 / 3.6e6))
    const more = {
      ...shipped,
      id: 'v',
      layers: [...shipped.layers, layer('p', 'high', medium('Fine pad'), 20)],
    }
    const away = outcomeOf({ ...base, fill: more }, NORMAL).uncertainty
    expect(away).toBeGreaterThan(trial.expandedUncertainty)
    const { told: _told, ...untold } = base
    expect(away).toBeLessThan(outcomeOf({ ...untold, rest: 0, fill: more }, NORMAL).uncertainty)
  })
  test('a trial that flows more than hose and media allow tells how far the curve reaches instead', () => {
    const { base, trial } = told(model(880 / 3.6e6))
    expect(base.rest).toBe(0)
    expect(base.drive.reach).toBeGreaterThan(1)
    expect(outcomeOf({ ...base, fill: shipped }, NORMAL).flow / trial.mean).toBeCloseTo(1, 5)
  })
  test('a tap turned down at the trial, other mains and the sea belong to the trial: the body is told the same', () => {
    const open = told(model(450 / 3.6e6)).base
    const at = (more: object) => told(model(450 / 3.6e6, more)).base
    // The same flow with the tap half shut, or at faster mains, means a freer body, or a tighter one.
    expect(at({ valve: 0.5 }).rest).toBeLessThan(open.rest)
    expect(at({ mainsFrequency: 60 }).rest).toBeGreaterThan(open.rest)
    expect(at({ salinity: 35 }).salinity).toBe(35)
  })
})
