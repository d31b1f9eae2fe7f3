import { CLAIM_QUANTITIES } from '@ypsometer/core/trials/records'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { solidVolume, SOLID_FIELDS, SOLID_SHAPES } from '@ypsometer/core/volumes/solids'
import { templateChambers, usualBody } from '@ypsometer/core/kinds/templates'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import {
  chamberColumns,
  chamberRecord,
  interiorOf,
  mediaMassOf,
  modelRecord,
  Segments,
  tankShape,
  tankWater,
  RESOURCES,
  type Dossier,
  type Tank,
} from '.'

const id = randomUUID()
const row = {
  version: 1,
  createdAt: '2026-11-25T00:00:00.000Z',
  updatedAt: '2026-11-25T00:00:00.000Z',
  deletedAt: null,
}
const said = (r: { success: boolean; error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  r.error?.issues.map((i) => `${i.path.map(String).join('.')}: ${i.message}`) ?? []

describe('creates fill what is usual and refuse by name', () => {
  test('a label’s model needs maker, name and kind; the rest is usual', () => {
    expect(RESOURCES.models.Create.parse({ id, maker: ' Quillon ', name: 'Kettle', kind: 'canister' })).toEqual({
      id, maker: 'Quillon', name: 'Kettle', kind: 'canister', mainsFrequency: 50, primedBy: null, houseRuleId: null, kinId: null, kinship: 'sibling', offers: [], errata: [], note: '',
    }) // prettier-ignore
    expect(
      said(
        RESOURCES.models.Create.safeParse({ id, maker: ' ', name: 'x', kind: 'kettle', mainsFrequency: 55 }),
      ),
    ).toEqual([
      'maker: The maker, at least one character',
      expect.stringMatching(/^kind: /),
      'mainsFrequency: 50 or 60 Hz',
    ])
  })
  test.each([
    ['value', RESOURCES.claims.Create, { id, modelId: id, quantity: 'noise', value: -1 }],
    [
      'currency',
      RESOURCES.claims.Create,
      { id, modelId: id, quantity: 'price', amountMinor: 100, currency: 'euro' },
    ],
    ['obtainedOn', RESOURCES.specimens.Create, { id, modelId: id, obtainedOn: '31.12.2026' }],
    ['lift', RESOURCES.trials.Create, { id, modelId: id, lift: 200 }],
    [
      'seconds',
      RESOURCES.readings.Create,
      { id, trialId: id, takenAt: '2026-11-25T10:00:00Z', volume: 0.005, seconds: -1 },
    ],
    ['takenAt', RESOURCES.readings.Create, { id, trialId: id, takenAt: 'noon', volume: 0.005, seconds: 20 }],
    ['moves', RESOURCES.parts.Create, { id, modelId: id, position: 1, name: 'x', moves: 1.5 }],
    [
      'findings',
      RESOURCES.parts.Create,
      { id, modelId: id, position: 1, name: 'x', findings: Array(13).fill('dry') },
    ],
    ['perforated', RESOURCES.chambers.Create, { id, modelId: id, position: 1, name: 'x', perforated: 1.2 }],
    [
      'segments',
      RESOURCES.hookups.Create,
      {
        id,
        modelId: id,
        name: 'x',
        segments: [1, 2].map(() => ({
          kind: 'fitting',
          id: 'a',
          label: 'Tap',
          lossCoefficient: 1,
          diameter: 0.016,
          count: 1,
        })),
      },
    ],
  ] as const)('%s', (field, schema, body) => {
    const complaints = said(schema.safeParse(body))
    expect(complaints).toHaveLength(1)
    expect(complaints[0]?.split(/[.:]/)[0]).toBe(field)
  })
  test('a piece of a hookup has the fields of its kind and no others are needed', () => {
    expect(
      Segments.safeParse([
        {
          kind: 'spray-bar',
          id: 'b',
          label: 'Bar',
          holes: 16,
          holeDiameter: 0.004,
          dischargeCoefficient: 0.62,
        },
      ]).success,
    ).toBe(true)
    expect(
      said(Segments.safeParse([{ kind: 'hose', id: 'b', label: 'Hose', diameter: 0.016, roughness: 0 }]))[0],
    ).toMatch(/^0\.length/)
  })
})

const dossier = (more: Partial<Dossier> = {}): Dossier => ({
  model: { ...row, ...RESOURCES.models.Create.parse({ id, maker: 'Quillon', name: 'Kettle', kind: 'canister' }) },
  claims: [], specimens: [], hookups: [], trials: [], readings: [], logs: [], contents: [], parts: [], photos: [], bodies: [], chambers: [], fills: [], visits: [], ...more,
}) // prettier-ignore

describe('a dossier as the core reads it', () => {
  test('words and prices are no figures; every numeric quantity is', () => {
    const claims = [...CLAIM_QUANTITIES, 'price', 'contents'].map((quantity, i) => ({
      ...row,
      ...RESOURCES.claims.Create.parse({
        id: randomUUID(),
        modelId: id,
        quantity,
        ...(quantity === 'price'
          ? { amountMinor: 5, currency: 'EUR' }
          : quantity === 'contents'
            ? { words: 'hose' }
            : { value: i + 1 }),
      }),
    }))
    expect(modelRecord(dossier({ claims })).claims.map((c) => c.quantity)).toEqual([...CLAIM_QUANTITIES])
  })
  test('runs follow their trial in the order taken, whatever order they arrived in', () => {
    const trial = { ...row, ...RESOURCES.trials.Create.parse({ id: randomUUID(), modelId: id }) }
    const reading = (seconds: number, minute: number, trialId = trial.id) => ({
      ...row,
      ...RESOURCES.readings.Create.parse({
        id: randomUUID(),
        trialId,
        takenAt: `2026-11-25T10:0${minute}:00Z`,
        volume: 0.005,
        seconds,
      }),
    })
    const [record] = modelRecord(
      dossier({ trials: [trial], readings: [reading(32, 2), reading(31, 1), reading(99, 0, randomUUID())] }),
    ).trials
    expect(record?.runs.map((r) => r.seconds)).toEqual([31, 32])
    expect(record?.method).toEqual({ vessel: 0.01, resolution: 0.01, reaction: 0.05 })
  })
  test('media mass is the newest one noted, and only a scale makes it a weighed one', () => {
    const specimen = (mediaMass: number | null, mediaMassBy?: 'scale') => ({
      ...row,
      ...RESOURCES.specimens.Create.parse({ id: randomUUID(), modelId: id, mediaMass, mediaMassBy }),
    })
    expect(mediaMassOf({ specimens: [specimen(1), specimen(2), specimen(null)] })).toEqual({
      mass: 2,
      weighed: false,
    })
    expect(mediaMassOf({ specimens: [specimen(3, 'scale')] })).toEqual({ mass: 3, weighed: true })
    expect(mediaMassOf({ specimens: [] })).toBeNull()
  })
})

test('chambers travel to rows and back without change, for every kind and shape', () => {
  for (const kind of FILTER_KINDS) {
    const [width, depth, height] = usualBody(kind)
    for (const c of templateChambers(kind, { width, depth, height }, () => id)) {
      const stored = RESOURCES.chambers.Row.parse({
        ...row,
        ...RESOURCES.chambers.Create.parse({ id, modelId: id, position: 1, ...chamberColumns(c) }),
      })
      expect(chamberRecord(stored)).toEqual({
        ...c,
        rim: null,
        displaced: null,
        way: null,
        beside: null,
        overflowSill: null,
        wallGap: null,
      })
    }
  }
  for (const shape of SOLID_SHAPES) {
    const stored = RESOURCES.chambers.Row.parse({
      ...row,
      ...RESOURCES.chambers.Create.parse({ id, modelId: id, position: 1, name: 'x', shape }),
    })
    expect(Object.keys(chamberRecord(stored).solid).sort()).toEqual(['shape', ...SOLID_FIELDS[shape]].sort())
    expect(solidVolume(chamberRecord(stored).solid)).toBeGreaterThan(0)
  }
})

test('an interior is in flow order, and there is none without a body', () => {
  const chamber = (name: string, position: number) =>
    RESOURCES.chambers.Row.parse({
      ...row,
      ...RESOURCES.chambers.Create.parse({ id: randomUUID(), modelId: id, position, name }),
    })
  const chambers = [chamber('second', 2), chamber('first', 1)]
  expect(interiorOf({ bodies: [], chambers })).toBeNull()
  const bodies = [
    {
      ...row,
      id,
      modelId: id,
      outerWidth: 0.2,
      outerDepth: 0.2,
      outerHeight: 0.4,
      overhang: null,
      hookOpening: null,
      intakeReach: null,
      heightWithHoses: null,
      waterFill: null,
      emptyMass: null,
      fullMass: null,
      typed: {},
    },
  ]
  expect(interiorOf({ bodies, chambers })?.chambers.map((c) => c.name)).toEqual(['first', 'second'])
})

test('a tank row keeps the lengths of every shape but is measured by its own', () => {
  fc.assert(
    fc.property(fc.constantFrom('box', 'cylinder', 'bow-front', 'corner'), (shape) => {
      const tank = { ...row, ...RESOURCES.tanks.Create.parse({ id, name: 'x', shape }) } as Tank
      expect(tankShape(tank).shape).toBe(shape)
      expect(tankWater(tank).water).toBeGreaterThan(0)
    }),
  )
})
