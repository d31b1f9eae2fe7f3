import '../../tests/setup'
import { modelRecord, pathRecord } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { auditOrder, HOUSE_RULES, type HouseRule } from '@ypsometer/core/path/audit'
import { outcomeOf, type Outcome } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { demoDossier, demoMedia, demoModels } from '../../tests/dossier'
import { units } from '../settings/settings'
import { FillCutaway } from './FillCutaway'
import { chamberBox, layerBox } from './layers'
import { MediumSwatch, textureOf } from './mediaPatterns'

beforeEach(() => units.set('metric'))
afterEach(cleanup)

const outcomes = (name: string): readonly Outcome[] => {
  const dossier = demoDossier(name)
  const record = pathRecord(dossier, demoMedia(), assess(modelRecord(dossier)), null)
  const base = record && pathBase(record)
  if (!record || base?.kind !== 'ready') throw new Error('not ready')
  return record.fills.map((fill) => outcomeOf({ ...base.base, fill }, STOCK_CLASSES[1] as StockClass, true))
}
const first = (name: string): Outcome => outcomes(name)[0] as Outcome
const said = (o: Outcome) =>
  auditOrder(o, HOUSE_RULES[0] as HouseRule).map((f) => {
    const { check: _check, ...rule } = f.rule
    return { ...f, rule }
  })
const draw = (o: Outcome, show: 'fill' | 'path', more: object = {}) =>
  render(
    <FillCutaway name="x" outcome={o} show={show} selected={null} onSelect={() => undefined} {...more} />,
  )

test.each(demoModels())('%s: every layer lies inside its chamber, none over another', (name) => {
  for (const o of outcomes(name)) {
    const boxes = o.layers.map((l) => ({ l, b: layerBox(l.chamber, l.placed), c: chamberBox(l.chamber) }))
    for (const { b, c, l } of boxes) {
      expect(b.x1).toBeGreaterThan(b.x0)
      expect(b.y1).toBeGreaterThan(b.y0)
      if (l.placed.over > 0) continue
      expect(b.x0).toBeGreaterThanOrEqual(c.x0 - 1e-9)
      expect(b.x1).toBeLessThanOrEqual(c.x1 + 1e-9)
      expect(b.y1).toBeLessThanOrEqual(c.y1 + 1e-9)
    }
    boxes.forEach((a, i) =>
      boxes.slice(i + 1).forEach((z) => {
        if (a.l.chamber !== z.l.chamber || a.l.chamber.way === 'inward') return
        const wide = Math.min(a.b.x1, z.b.x1) - Math.max(a.b.x0, z.b.x0)
        const tall = Math.min(a.b.y1, z.b.y1) - Math.max(a.b.y0, z.b.y0)
        expect(Math.min(wide, tall)).toBeLessThan(1e-9)
      }),
    )
  }
})

test.each(demoModels())('%s: each layer is a button that says what it is, how much, and what bypasses it', (name) => {
  const o = first(name)
  draw(o, 'path', { findings: said(o) })
  for (const l of o.layers) {
    const label = new RegExp(`^${l.placed.medium.name.replace(/[()]/g, '.')} in ${l.chamber.chamber.name.toLowerCase()}: .*bypasses it$`)
    expect(screen.getAllByRole('button', { name: label }).length).toBeGreaterThan(0)
  }
  expect(document.querySelector('desc')?.textContent).toMatch(/^Flow order: /)
}) // prettier-ignore

test('a layer is chosen by pointer and by keyboard', () => {
  const chosen: string[] = []
  draw(first('Torrent 1400'), 'fill', { onSelect: (id: string) => chosen.push(id) })
  const pad = screen.getByRole('button', { name: /^Fine pad in upper tray/ })
  fireEvent.click(pad)
  fireEvent.keyDown(pad, { key: 'Enter' })
  fireEvent.keyDown(pad, { key: 'a' })
  expect(chosen).toEqual(['l5', 'l5'])
})

test('findings are pinned with their numbers in the list; a pin opens its finding', () => {
  const o = first('Terrace 1200')
  const findings = said(o)
  const opened: string[] = []
  const { container } = draw(o, 'path', { findings, onFinding: (id: string) => opened.push(id) })
  const pins = [...container.querySelectorAll('g.cursor-pointer[aria-hidden]')]
  expect(pins.map((p) => p.textContent)).toEqual(
    findings.flatMap((f, i) => (f.layerId || f.chamberId ? [String(i + 1)] : [])),
  )
  fireEvent.click(pins[0] as Element)
  expect(opened).toEqual([findings[0]?.id])
})

test('water round a layer is dashed and in the colour of loss, as wide as its share', () => {
  const widths = (o: Outcome): number[] =>
    [...draw(o, 'path').container.querySelectorAll('path[stroke-dasharray="4 3"]')].map((p) =>
      Number(p.getAttribute('stroke-width')),
    )
  const [shipped, mended] = outcomes('Terrace 1200') as [Outcome, Outcome]
  const before = widths(shipped)
  cleanup()
  const after = widths(mended)
  expect(Math.max(...before)).toBeGreaterThan(2 * Math.max(0, ...after))
})

test('a gap is never too thin to be seen, a bag is dashed, a pad cut to the wall stands out of its tray', () => {
  const { container } = draw(first('Torrent 1400'), 'fill')
  expect(container.querySelectorAll('g[data-layer] rect[stroke-dasharray="3 2"]').length).toBe(3)
  const pad = container.querySelector('g[data-layer="l5"]')
  const [whole, inner] = [...(pad?.querySelectorAll('rect') ?? [])]
  expect(Number(whole?.getAttribute('width')) - Number(inner?.getAttribute('width'))).toBeGreaterThanOrEqual(
    6,
  )
  cleanup()
  const mended = outcomes('Terrace 1200')[1] as Outcome
  const drawn = draw(mended, 'fill').container
  expect(drawn.querySelectorAll('g[data-layer] path[stroke-width="3"]').length).toBe(2)
})

test('textures tell foams of three finenesses apart, and each form has one', () => {
  const foam = (poresPerInch: number) => textureOf({ form: 'foam', poresPerInch })
  expect([foam(10), foam(20), foam(45)]).toEqual(['foam', 'foam-medium', 'foam-fine'])
  for (const m of demoMedia()) {
    const { container, unmount } = render(<MediumSwatch id={m.id} medium={m} />)
    const fill = container.querySelector('rect[stroke]')?.getAttribute('fill') ?? ''
    const id = /url\(#(.+)\)/.exec(fill)?.[1] ?? 'none'
    expect([m.name, container.querySelector(`pattern[id="${id}"]`) !== null]).toEqual([m.name, true])
    unmount()
  }
})

test('a layer drawn to another place by the pointer: told where on the way and at the end, and said by its name', async () => {
  const o = first('Torrent 1400')
  const held: unknown[] = []
  const dropped: unknown[] = []
  const { container } = draw(o, 'fill', {
    onHold: (id: string, target: unknown) => held.push([id, target]),
    onDrop: (id: string, target: unknown) => dropped.push([id, target]),
  })
  const svg = container.querySelector('svg') as SVGSVGElement
  const laidOut = Number(svg.getAttribute('width') ?? svg.viewBox.baseVal.width)
  // Shown at half its size, as on a narrow window: the place under the hand is still the right one.
  jest.spyOn(svg, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 0, laidOut / 2, 400))
  const middle = (layerId: string): readonly [number, number] => {
    const r = container.querySelector(`[data-layer="${layerId}"] rect`)
    const at = (name: string): number => Number(r?.getAttribute(name))
    return [at('x') + at('width') / 2, at('y') + at('height') / 2]
  }
  const [x0, y0] = middle('l5')
  const [x1, y1] = middle('l1')
  const pointer = (x: number, y: number) => ({ clientX: x / 2, clientY: y / 2, isPrimary: true, button: 0, pointerId: 1 }) // prettier-ignore
  await act(async () => {
    fireEvent.pointerDown(container.querySelector('[data-layer="l5"]') as Element, pointer(x0, y0))
    await Promise.resolve()
  })
  for (const share of [0.3, 0.7, 1])
    await act(async () => {
      fireEvent.pointerMove(document, pointer(x0 + (x1 - x0) * share, y0 + (y1 - y0) * share))
      await new Promise((done) => setTimeout(done, 20))
    })
  expect(document.querySelector('[id^="DndLiveRegion"]')?.textContent).toBe('Fine pad in the hand.')
  await act(async () => {
    fireEvent.pointerUp(document, pointer(x1, y1))
    await new Promise((done) => setTimeout(done, 20))
  })
  const lower = o.layers.find((l) => l.placed.layer.id === 'l1')?.placed.layer.chamberId
  expect(held.at(-1)).toEqual(['l5', expect.objectContaining({ chamberId: lower })])
  expect(dropped).toEqual([['l5', expect.objectContaining({ chamberId: lower })]])
  expect(document.querySelector('[id^="DndLiveRegion"]')?.textContent).toBe('Fine pad let go.')
})
