import '../../tests/setup'
import type { Verdict } from '@ypsometer/core/judging/verdictReasons'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { supportedRange } from '@ypsometer/core/tanks/range'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import fc from 'fast-check'
import { units } from '../settings/settings'
import { BudgetColumn, BudgetList } from './BudgetColumn'
import { standalone, toCsv } from './ChartTools'
import { spreadLabels } from './labels'
import { LitreRuler } from './LitreRuler'

afterEach(cleanup)
beforeEach(() => units.set('metric'))

test('labels never come closer than their gap, keep their order and stay inside, when there is room', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { maxLength: 10 }), (wanted) => {
      const placed = spreadLabels(wanted, 30, 0, 400)
      const sorted = [...placed].sort((a, b) => a - b)
      sorted.forEach((y, i) => {
        expect(y).toBeGreaterThanOrEqual(-1e-9)
        expect(y).toBeLessThanOrEqual(400 + 1e-9)
        if (i) expect(y - (sorted[i - 1] ?? 0)).toBeGreaterThanOrEqual(30 - 1e-9)
      })
      wanted.forEach((a, i) =>
        wanted.forEach((b, j) => a < b && expect(placed[i]).toBeLessThan(placed[j] ?? NaN)),
      )
    }),
  )
})

describe('CSV', () => {
  test('quotes what RFC 4180 wants quoted and defuses what a spreadsheet would run', () => {
    const cells = ['a,b', 'say "x"', 'two\nlines', '=SUM(A1)', '@cmd', '-3.5', -3.5, 'plain']
    expect(toCsv({ name: 'x', columns: [...'abcdefgh'], rows: [cells] })).toBe(
      `a,b,c,d,e,f,g,h\r\n"a,b","say ""x""","two\nlines","'=SUM(A1)","'@cmd",-3.5,-3.5,plain\r\n`,
    )
  })
})

test('a drawing saved as a file has its colours written out and carries no script or handlers', () => {
  const { container } = render(
    <svg data-drawing>
      <rect className="bar" style={{ fill: 'rgb(1, 2, 3)' }} tabIndex={0} />
      <foreignObject>
        <p>html</p>
      </foreignObject>
    </svg>,
  )
  const svg = container.querySelector('svg')
  svg?.querySelector('rect')?.setAttribute('onclick', 'alert(1)')
  const file = standalone(svg as SVGSVGElement)
  expect(file).toContain('fill="rgb(1, 2, 3)"')
  expect(file).not.toMatch(/onclick|foreignObject|class=|tabindex/i)
  expect(svg?.querySelector('rect')?.getAttribute('class')).toBe('bar')
})

test('curve and column that stand side by side are saved as one drawing, each in its place', () => {
  const { container } = render(
    <>
      <svg data-drawing id="curve" />
      <svg data-drawing id="column" />
    </>,
  )
  const [curve, column] = [...container.querySelectorAll('svg')]
  const place = (el: Element | undefined, x: number, width: number): void => {
    if (el) el.getBoundingClientRect = () => ({ left: x, top: 10, right: x + width, bottom: 210 }) as DOMRect
  }
  place(curve, 40, 500)
  place(column, 540, 220)
  const file = standalone(curve as SVGSVGElement, column as SVGSVGElement)
  expect(file).toMatch(/^<svg[^>]* width="720" height="200"/)
  expect(file).toMatch(/id="curve"[^>]* x="0"/)
  expect(file).toMatch(/id="column"[^>]* x="500"/)
})

describe('the head budget', () => {
  const parts = [
    { id: 'a', label: 'Intake', kind: 'fitting', head: 0.2, share: 0.25 },
    { id: 'b', label: 'Hose', kind: 'hose', head: 0.4, share: 0.5 },
    { id: 'static', label: 'Lift', kind: 'static', head: 0.2, share: 0.25 },
  ] as const
  const figure = { dimension: 'head', provenance: 'computed', formula: 'h = f (L/D) v²/2g' } as const
  const lines = parts.map((p) => ({ ...p, figure: { ...figure, id: p.id, label: p.label, value: p.head } }))
  test('stands on the chart’s own axis: each part as tall as its head, from the duty head down to zero', () => {
    const { container } = render(
      <BudgetColumn lines={lines} head={0.8} top={10} bottom={40} height={250} axisMax={1} />,
    )
    const rects = [
      ...container.querySelectorAll('rect[stroke], rect[fill^=url], rect:not([fill=transparent])'),
    ].map((r) => [Number(r.getAttribute('y')), Number(r.getAttribute('height'))])
    // 200 px for 1 m from y 10 to 210: 0.8 m stands at 50, and 0.2, 0.4, 0.2 m are 40, 80, 40 px.
    expect(rects.map((r) => r.map((v) => Math.round(v)))).toEqual([[50, 40], [90, 80], [170, 40]]) // prettier-ignore
    expect(screen.getByRole('group').getAttribute('aria-label')).toContain('Hose 0.400 m')
  })
  test('a part’s name in the drawing shows its working on Enter, and Escape gives the focus back', () => {
    render(<BudgetColumn lines={lines} head={0.8} top={10} bottom={40} height={250} axisMax={1} />)
    const hose = screen.getByRole('button', { name: /Hose, 0.400 m/ })
    fireEvent.keyDown(hose, { key: 'Enter' })
    const panel = screen.getByRole('dialog', { name: 'Working of hose' })
    expect(panel.textContent).toContain('h = f (L/D) v²/2g')
    fireEvent.keyDown(panel, { key: 'Escape' })
    expect(screen.queryByRole('dialog')).toBeNull()
    expect(document.activeElement).toBe(hose)
  })
  test('small heads are read in millimetres, and next to nothing is said as that', () => {
    const heads = [0.562, 0.049, 0.0058, 0.00016, 0.000041, 0]
    const said = heads.map((head, i) => ({
      ...(lines[0] as (typeof lines)[0]),
      id: `h${i}`,
      label: `Part ${i}`,
      head,
    }))
    render(<BudgetColumn lines={said} head={0.8} top={10} bottom={40} height={250} axisMax={1} />)
    expect(screen.getByRole('group').getAttribute('aria-label')).toBe(
      'Head budget: Part 0 0.562 m, Part 1 0.049 m, Part 2 5.8 mm, Part 3 0.16 mm, Part 4 under 0.1 mm, Part 5 0 mm',
    )
  })
  test('as a list it says the same', () => {
    render(<BudgetList lines={lines} />)
    expect(screen.getAllByRole('row')[1]?.textContent).toMatch(/Hose0\.4\sm50\s%/)
  })
})

const NOZZLE = { kind: 'nozzle', aim: 'along', depth: 0, diameter: 0.016, holes: 1, spacing: 0.02, width: 0.1 } as const // prettier-ignore

describe('the litre ruler', () => {
  test('a low end above the top: both are said, in the drawing, in words and in the table', () => {
    const flow = { value: 624 / 3.6e6 }
    const ranges = STOCK_CLASSES.map((s) =>
      supportedRange({ flow, mass: { value: 0.6 }, claimedMax: 0.08, outlet: NOZZLE }, s),
    )
    render(
      <LitreRuler
        verdict={{ ranges, claimedRange: { min: 0.02, max: 0.08 } } as unknown as Verdict}
        stock={STOCK_CLASSES}
        name="Gale"
      />,
    )
    // 624 L/h from 16 mm leave at 0.862 m/s: calm at 0.15 m/s from 0.552 m, so a tank of (1.103)³/4 = 336 L; by
    // oversizing 80/3.5 = 22.9 L at most.
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain(
      'Turtles, still water no tank, too strong below 336 L',
    )
    fireEvent.click(screen.getByRole('button', { name: /As a table/ }))
    expect(screen.getByRole('row', { name: /still water/ }).textContent).toBe(
      'Turtles, still water33622.9oversizing',
    )
  })

  const flow = 600 / 3.6e6
  const verdict = {
    ranges: STOCK_CLASSES.map((s) =>
      supportedRange(
        {
          flow: { value: flow, uncertainty: flow * 0.03 },
          mass: { value: 1.2 },
          claimedMax: 0.3,
          outlet: NOZZLE,
        },
        s,
      ),
    ),
    claimedRange: { min: 0.06, max: 0.3 },
  } as unknown as Verdict
  test('says claim, support and what binds, in words and in its table', () => {
    render(<LitreRuler verdict={verdict} stock={STOCK_CLASSES} name="Kettle" />)
    const text = screen.getByRole('img').getAttribute('aria-label')
    expect(text).toContain('The label claims 60 L to 300 L.')
    expect(text).toContain('Normal 65 L – 120 L, limit: media')
    fireEvent.click(screen.getByRole('button', { name: /As a table/ }))
    expect(screen.getAllByRole('row').map((r) => r.textContent)[3]).toBe('Normal64.5120media weight')
  })
  test('the bracket’s right end, and a rust stretch from what is supported to what is claimed, lie where litres say', () => {
    const { container } = render(<LitreRuler verdict={verdict} stock={STOCK_CLASSES} name="Kettle" />)
    const stretches = [...container.querySelectorAll('path[stroke="var(--color-error)"]')].map(
      (p) => p.getAttribute('d') ?? '',
    )
    const ends = stretches.map((d) => Number(/H([\d.]+)/.exec(d)?.[1]))
    // All end at the claim, or where half of the tank is calm if that is before.
    expect(new Set(ends.map((e) => e.toFixed(3))).size).toBeGreaterThan(1)
    // A bar where both ends are in order, an outline where the low end lies above the top.
    const outlined = [...container.querySelectorAll('text')].filter((t) => /^too strong below/.test(t.textContent ?? '')).length // prettier-ignore
    expect(outlined).toBeGreaterThan(0)
    expect(container.querySelectorAll('svg[data-drawing] rect').length + outlined).toBe(STOCK_CLASSES.length)
  })
})
