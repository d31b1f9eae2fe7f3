import '../../tests/setup'
import type { Figure } from '@ypsometer/core/figures/figure'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { units } from '../settings/settings'
import { FigureView } from './FigureView'
import { Num } from './Num'
import { Words } from './Words'

afterEach(cleanup)
beforeEach(() => units.set('metric'))

const figure: Figure = {
  id: 'f', label: 'Measured flow', value: 612.3 / 3.6e6, uncertainty: 14.2 / 3.6e6, dimension: 'flow', provenance: 'measured',
  conditions: ['empty body', 'no lift'], formula: 'Q = V/t', source: 'GUM', working: [{ symbol: 'n', label: 'runs', value: 5, dimension: 'ratio' }],
} // prettier-ignore

test('a number stands with its unit, uncertainty, mark and word', () => {
  render(<FigureView figure={figure} />)
  expect(screen.getByRole('button').textContent).toMatch(/612 ± 14\sL\/hmeasured/)
})

test('asked, it shows conditions, formula, numbers and source; Escape gives the focus back', () => {
  render(<FigureView figure={figure} />)
  fireEvent.click(screen.getByRole('button'))
  const dialog = screen.getByRole('dialog', { name: 'Working of measured flow' })
  for (const words of ['empty body · no lift', 'Q = V/t', 'runs', 'Source: GUM', 'covers 95 %'])
    expect(dialog.textContent).toContain(words)
  fireEvent.keyDown(dialog, { key: 'Escape' })
  expect(screen.queryByRole('dialog')).toBeNull()
  expect(document.activeElement?.getAttribute('aria-expanded')).toBe('false')
})

test('a click elsewhere closes it', () => {
  render(<FigureView figure={figure} />)
  fireEvent.click(screen.getByRole('button'))
  fireEvent.pointerDown(document.body)
  expect(screen.queryByRole('dialog')).toBeNull()
})

test('numbers and sentences follow the units at once', () => {
  render(
    <p>
      <Num si={0.15} dimension="volume" /> /{' '}
      <Words sentence={['up to ', { si: 0.15, dimension: 'volume' }, '.']} />
    </p>,
  )
  expect(document.body.textContent).toMatch(/150\sL \/ up to 150\sL\./)
  act(() => units.set('us'))
  // 150 ÷ 3.785 411 784 = 39.63
  expect(document.body.textContent).toMatch(/39\.6\sUS gal \/ up to 39\.6 US gal\./)
})
