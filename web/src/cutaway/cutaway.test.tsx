import '../../tests/setup'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { sectionWidths } from '@ypsometer/core/volumes/solids'
import { templateChambers, usualBody } from '@ypsometer/core/kinds/templates'
import type { BodyRecord, Chamber } from '@ypsometer/core/volumes/interior'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { units } from '../settings/settings'
import { Cutaway } from './Cutaway'
import { buildScene, scaleBar } from './scene'
import type { Point } from './shapes'

afterEach(cleanup)
beforeEach(() => units.set('metric'))

const bodyOf = (kind: (typeof FILTER_KINDS)[number]): BodyRecord => {
  const [outerWidth, outerDepth, outerHeight] = usualBody(kind)
  return { outerWidth, outerDepth, outerHeight, waterFill: null, emptyMass: null, fullMass: null }
}
const chambersOf = (kind: (typeof FILTER_KINDS)[number]): readonly Chamber[] => {
  const [width, depth, height] = usualBody(kind)
  return templateChambers(kind, { width, depth, height }, (n) => n)
}
const inside = (p: Point, b: { x0: number; y0: number; x1: number; y1: number }): boolean =>
  p[0] >= b.x0 - 1e-9 && p[0] <= b.x1 + 1e-9 && p[1] >= b.y0 - 1e-9 && p[1] <= b.y1 + 1e-9

describe.each([...FILTER_KINDS])('the scene of a %s', (kind) => {
  const scene = buildScene(kind, bodyOf(kind), chambersOf(kind))
  test('keeps every chamber, stroke and water way inside the drawing', () => {
    const all = [
      ...scene.chambers.flatMap((c) => c.outline),
      ...scene.strokes.flatMap((s) => s.points),
      ...scene.tankWater,
      ...scene.bubbles,
    ]
    for (const p of all) expect(inside(p, scene.bounds)).toBe(true)
  })
  test('is to scale: each chamber is as wide and high as it was measured', () => {
    for (const c of scene.chambers) {
      const xs = c.outline.map((p) => p[0])
      const ys = c.outline.map((p) => p[1])
      const solid = c.chamber.solid
      const wide = solid.shape === 'cylinder' ? solid.diameter : solid.shape === 'box' ? solid.width : NaN
      expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(wide, 12)
      expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(solid.height, 12)
    }
  })
  test('the water enters, passes every chamber but the head space, and leaves', () => {
    expect(scene.paths.length).toBeGreaterThan(0)
    const points = scene.paths.flat()
    for (const c of scene.chambers.filter(
      (x) => x.chamber.role !== 'head-space' && x.chamber.role !== 'centre-pipe',
    ))
      expect(points.some((p) => runsThrough(p, p, c.chamber))).toBe(true)
  })
  test('is recognisable: pumps turn, air bubbles, tank kinds stand in water', () => {
    const air = ['air-sponge', 'air-box', 'fluidised'].includes(kind)
    expect(scene.impeller === null).toBe(air)
    expect(scene.bubbles.length > 0).toBe(air)
    expect(scene.tankWater.length > 0).toBe(kind !== 'canister')
    const strokes = new Set(scene.strokes.map((s) => s.what))
    expect(strokes.has(kind === 'canister' || kind === 'sump' ? 'hose' : 'glass')).toBe(true)
  })
})

/** Does a stretch of the water's way run through the inside of a box, more than a millimetre from its walls? */
function runsThrough([ax, ay]: Point, [bx, by]: Point, c: Chamber): boolean {
  const inside = 0.001
  const width = Math.max(sectionWidths(c.solid).foot, sectionWidths(c.solid).top)
  const box = [c.x + inside, c.x + width - inside, c.y + inside, c.y + c.solid.height - inside] as const
  return Array.from({ length: 201 }, (_, i) => i / 200).some((t) => {
    const [x, y] = [ax + (bx - ax) * t, ay + (by - ay) * t]
    return x > box[0] && x < box[1] && y > box[2] && y < box[3]
  })
}

test.each(FILTER_KINDS)('%s: the water’s way touches no chamber that it does not pass there', (kind) => {
  const chambers = chambersOf(kind)
  const scene = buildScene(kind, bodyOf(kind), chambers)
  const holds = (c: Chamber, p: Point): boolean => runsThrough(p, p, c)
  for (const path of scene.paths)
    path.slice(1).forEach((to, i) => {
      const from = path[i] as Point
      const passed = chambers.filter((c) => holds(c, from) || holds(c, to))
      // Water to the foot of a pipe runs beside it, in the chambers that it stands in; the head space is open to all.
      const beside = passed.some((c) => c.role === 'centre-pipe')
      const others = chambers.filter(
        (c) => !passed.includes(c) && c.role !== 'head-space' && !(beside && c.role !== 'pump-well'),
      )
      const crossed = others.filter((c) => runsThrough(from, to, c)).map((c) => c.name)
      expect([kind, i, crossed]).toEqual([kind, i, []])
    })
})

test('canister: the water leaves the side channel at its foot and enters the settling space', () => {
  const chambers = chambersOf('canister')
  const [path] = buildScene('canister', bodyOf('canister'), chambers).paths
  const channel = chambers.find((c) => c.role === 'side-channel') as Chamber
  const space = chambers.find((c) => c.role === 'settling-void') as Chamber
  const middle = space.y + space.solid.height / 2
  expect(path?.some(([x, y]) => x < channel.x + 0.03 && Math.abs(y - middle) < 1e-9)).toBe(true)
})

test('what lies above the usable height is the wasted part, tapering with its chamber', () => {
  const cone: Chamber = {
    id: 'c', name: 'Pot', role: 'tray', solid: { shape: 'cone', diameter: 0.1, topDiameter: 0.2, height: 0.1 }, x: 0, y: 0,
    usableHeight: 0.05, use: 'biological', measured: true,
  } // prettier-ignore
  const [c] = buildScene('canister', bodyOf('canister'), [cone]).chambers
  // Half way up the bore is 150 mm, centred on 100 mm.
  expect(c?.wasted[0]?.[0]).toBeCloseTo(0.025, 12)
  expect(c?.wasted[1]?.[0]).toBeCloseTo(0.175, 12)
  expect(c?.wasted.map((p) => p[1])).toEqual([0.05, 0.05, 0.1, 0.1])
})

test('a scale bar is round and no longer than a third of the drawing', () => {
  const bars = [0.2, 0.5, 1.2, 0.05].map((w) => scaleBar(w))
  ;[0.05, 0.1, 0.2, 0.01].forEach((l, i) => expect(bars[i]).toBeCloseTo(l, 12))
  // In inches it is a whole number of them: 2 in of a drawing 20 cm wide, not 1.97.
  expect(scaleBar(0.2, 0.0254) / 0.0254).toBeCloseTo(2, 12)
})

describe('the drawing', () => {
  const draw = (more: object = {}) =>
    render(
      <Cutaway
        kind="canister"
        name="Kettle"
        body={bodyOf('canister')}
        chambers={chambersOf('canister')}
        selected="Lower tray"
        {...more}
      />,
    )

  test('says each chamber, its litres, its use and whether it was measured, and which is chosen', () => {
    draw({ onSelect: () => undefined })
    const tray = screen.getByRole('button', {
      name: /^Lower tray: .* L, mechanical media, typical size \(assumed\)$/,
    })
    expect(tray.getAttribute('aria-pressed')).toBe('true')
    expect(screen.getByRole('button', { name: /^Settling space: .* settling space/ })).toBeTruthy()
  })
  test('chooses by pointer, by Enter and by Space', () => {
    const chosen: string[] = []
    draw({ onSelect: (id: string) => chosen.push(id) })
    fireEvent.click(screen.getByRole('button', { name: /^Upper tray/ }))
    fireEvent.keyDown(screen.getByRole('button', { name: /^Middle tray/ }), { key: 'Enter' })
    fireEvent.keyDown(screen.getByRole('button', { name: /^Pump head/ }), { key: ' ' })
    expect(chosen).toEqual(['Upper tray', 'Middle tray', 'Pump head'])
  })
  test('unmeasured chambers are dashed, misfits are said, sizes come on demand', () => {
    const { container } = draw({
      problems: [{ chamberId: 'Lower tray', field: 'width', message: 'too wide' }],
    })
    expect(container.querySelectorAll('[stroke-dasharray="5 3"]').length).toBe(chambersOf('canister').length)
    expect(screen.getByRole('button', { name: /Lower tray.*does not fit/ })).toBeTruthy()
    expect(container.textContent).not.toContain('42 cm')
    fireEvent.click(screen.getByRole('button', { name: 'Sizes' }))
    expect(container.textContent).toContain('42 cm')
  })
  test('labels never collide: no two closer than a line', () => {
    const { container } = draw()
    const ys = [...container.querySelectorAll('text')]
      .filter((t) => / · /.test(t.textContent ?? '') && t.getAttribute('font-size') === '14')
      .map((t) => Number(t.getAttribute('y')))
    expect(ys).toHaveLength(chambersOf('canister').length)
    ys.sort((a, b) => a - b).forEach((y, i) => i && expect(y - (ys[i - 1] ?? 0)).toBeGreaterThanOrEqual(33.9))
  })
})
