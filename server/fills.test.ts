import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { HOUSE_RULES } from '@ypsometer/core/path/audit'
import { randomUUID } from 'node:crypto'
import { harness, type Harness } from './tests/harness'

let h: Harness
let modelId: string
let chamberId: string
const sintered = GENERIC_MEDIA.find((m) => m.form === 'sintered')
const pad = GENERIC_MEDIA.find((m) => m.form === 'pad')
const layer = (id: string, more: object = {}) => ({
  id, chamberId, mediumId: sintered?.id, measure: 'packs', amount: 2, bagged: true, gap: 0.003, crossed: true, sealed: false, fouled: 0, ...more,
}) // prettier-ignore
beforeAll(async () => {
  h = await harness()
  modelId = (await h.create('/models', { maker: 'Quillon', name: 'Fill', kind: 'canister' })).body.id
  chamberId = (await h.create('/chambers', { modelId, position: 1, name: 'Tray' })).body.id
})
afterAll(() => h.close())

test('generic media and the three schools are there from the first start, and stay what they were after another', async () => {
  const { items } = (await h.call('GET', '/media')).body
  expect(items.filter((m: { generic: boolean }) => m.generic)).toHaveLength(GENERIC_MEDIA.length)
  const rules = (await h.call('GET', '/house-rules')).body.items
  expect(rules.map((r: { name: string }) => r.name)).toEqual(HOUSE_RULES.map((r) => r.name))
  expect(rules.filter((r: { chosen: boolean }) => r.chosen)).toHaveLength(1)
})

test('a fill travels with its layers, in their order, and is replaced as a whole under its version', async () => {
  const made = await h.create('/fills', { modelId, name: 'As shipped', layers: [layer('a'), layer('b', { measure: 'height', amount: 0.02, mediumId: pad?.id })] })
  expect(made.status).toBe(201)
  const { id } = made.body
  const turned = await h.call('PATCH', `/fills/${id}`, { layers: [made.body.layers[1], made.body.layers[0]] }, { 'if-match': '"1"', 'idempotency-key': randomUUID() })
  expect(turned.body.layers.map((l: { id: string }) => l.id)).toEqual(['b', 'a'])
  const stale = await h.call('PATCH', `/fills/${id}`, { layers: [] }, { 'if-match': '"1"', 'idempotency-key': randomUUID() })
  expect(stale.status).toBe(409)
  expect(stale.body.current.layers).toHaveLength(2)
  const dossier = (await h.call('GET', `/models/${modelId}/dossier`)).body
  expect(dossier.fills[0].layers.map((l: { id: string }) => l.id)).toEqual(['b', 'a'])
}) // prettier-ignore

test.each([
  ['two layers of one id', { layers: [{ id: 'x' }, { id: 'x' }] }, /layers/],
  ['a medium that is not there', { layers: [{ mediumId: randomUUID() }] }, /mediumId/],
  ['less than nothing of it', { layers: [{ amount: -1 }] }, /layers\.0\.amount/],
  ['a layer full of dirt', { layers: [{ fouled: 1 }] }, /fouled/],
] as const)('%s is refused by name, and nothing is written', async (_, more, field) => {
  const layers = more.layers.map((l, i) => layer(`l${i}`, l))
  const r = await h.create('/fills', { modelId, name: 'Wrong', layers })
  expect([400, 422]).toContain(r.status)
  expect(r.body.errors[0].field).toMatch(field)
  const dossier = (await h.call('GET', `/models/${modelId}/dossier`)).body
  expect(dossier.fills.some((f: { name: string }) => f.name === 'Wrong')).toBe(false)
})

test('a medium’s price needs its currency, its name is its own, and no permeability is zero', async () => {
  const price = await h.create('/media', { name: 'Own rings', priceMinor: 500 })
  expect(price.body.errors[0].field).toBe('priceMinor')
  expect((await h.create('/media', { name: 'Own rings', permeability: 0 })).status).toBe(400)
  expect((await h.create('/media', { name: 'Own rings', priceMinor: 500, currency: 'EUR' })).status).toBe(201)
  const twice = await h.create('/media', { name: 'own RINGS' })
  expect([twice.status, twice.body.errors[0].field]).toEqual([409, 'name'])
})

const body = { outerWidth: 0.22, outerDepth: 0.22, outerHeight: 0.4, emptyMass: 3 }
const tray = (id: string, position: number) => ({ id, position, name: id.slice(0, 4), width: 0.2, depth: 0.2, height: 0.09, usableHeight: 0.08 }) // prettier-ignore
const [low, high] = [randomUUID(), randomUUID()]
const request = {
  kind: 'canister', body, chambers: [tray(low, 1), tray(high, 2)], pump: { shutOffHead: 1.7, maxFlow: 2.8e-4, exponent: 1.75 },
  layers: [
    layer('f', { chamberId: low, mediumId: pad?.id, measure: 'height', amount: 0.02, gap: 0.002 }),
    layer('m', { chamberId: high, measure: 'height', amount: 0.08, gap: 0 }),
  ],
} // prettier-ignore

test('path-audit and media-audit answer with the core’s numbers', async () => {
  const path = await h.call('POST', '/calc/path-audit', request)
  expect(path.status).toBe(200)
  expect(path.body.layers[0].bypassFraction).toBeGreaterThan(0.5)
  expect(path.body.findings.map((f: { rule: string }) => f.rule)).toContain('fine-sealed')
  const media = (await h.call('POST', '/calc/media-audit', request)).body
  // 0.2 · 0.2 · 0.08 m³ of sintered rings at 480 kg/m³.
  expect(media.biologicalMass).toBeCloseTo(1.536, 6)
  const wide = { ...request, layers: [{ ...request.layers[0], gap: 0.2 }] }
  const refused = await h.call('POST', '/calc/path-audit', wide)
  expect([refused.status, refused.body.errors[0].field]).toEqual([422, 'layers[f].gap'])
})

test('network: a circuit, its EPANET file, and the file read back; an impossible one is refused by element', async () => {
  const elements = [
    { kind: 'pump', id: 'p', from: 'tank', to: 'a', pump: request.pump },
    {
      kind: 'layer',
      id: 'l',
      from: 'a',
      to: 'back',
      thickness: 0.02,
      area: 0.04,
      permeability: 8e-10,
      inertia: 3000,
    },
  ]
  const there = await h.call('POST', '/calc/network', { elements, heads: { tank: 0, back: 0 } })
  expect(there.status).toBe(200)
  expect(there.body.inp).toContain('[PUMPS]')
  const again = await h.call('POST', '/calc/network', { inp: there.body.inp })
  expect(again.body.flows).toEqual(there.body.flows)
  const blind = await h.call('POST', '/calc/network', {
    elements: [elements[0], { ...elements[1], permeability: 0 }],
    heads: { tank: 0, back: 0 },
  })
  expect([blind.status, blind.body.errors[0].field]).toEqual([422, 'elements[l].permeability'])
  const foreign = await h.call('POST', '/calc/network', { inp: '[TITLE]\nnot ours' })
  expect([foreign.status, foreign.body.errors[0].field]).toEqual([422, 'inp'])
})
