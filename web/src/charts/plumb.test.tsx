import '../../tests/setup'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { Plumb } from './Plumb'

const moved: string[] = []
const payload = { trialId: 't1', flow: 640, head: 0.5 }
const show = (out = false): HTMLElement => {
  render(
    <svg>
      <Plumb cx={100} cy={100} payload={payload} out={out} onMove={(id) => moved.push(id)} />
    </svg>,
  )
  return screen.getByRole('button')
}
const at = (x: number, y: number) => ({ clientX: x, clientY: y, pointerId: 1 })
beforeEach(() => {
  moved.length = 0
  // What holds the pointer to the point is the browser's.
  Element.prototype.setPointerCapture = () => undefined
})
afterEach(cleanup)

test('drawn off the curve it is taken out, once, when it is let go', () => {
  const point = show()
  fireEvent.pointerDown(point, at(100, 100))
  fireEvent.pointerMove(point, at(120, 90))
  fireEvent.pointerMove(point, at(160, 50))
  expect(moved).toEqual([])
  fireEvent.pointerUp(point, at(160, 50))
  expect(moved).toEqual(['t1'])
})

test('where it is let go counts, though nothing was drawn on the way', () => {
  const point = show()
  fireEvent.pointerDown(point, at(100, 100))
  fireEvent.pointerUp(point, at(160, 50))
  expect(moved).toEqual(['t1'])
})

test('a shaky click, a drag broken off and a hand that passes over leave it in', () => {
  const point = show()
  fireEvent.pointerDown(point, at(100, 100))
  fireEvent.pointerUp(point, at(110, 95))
  fireEvent.pointerDown(point, at(100, 100))
  fireEvent.pointerMove(point, at(160, 50))
  fireEvent.pointerCancel(point)
  fireEvent.pointerUp(point, at(160, 50))
  fireEvent.pointerMove(point, at(160, 50))
  fireEvent.click(point)
  expect(moved).toEqual([])
})

test('enter takes it out, and says what it will do; one that is out comes back by a click', () => {
  const point = show()
  expect(point.getAttribute('aria-label')).toBe('Point at 640 and 0.50: in the fit; remove it')
  fireEvent.keyDown(point, { key: 'Enter' })
  fireEvent.keyDown(point, { key: 'x' })
  expect(moved).toEqual(['t1'])
  cleanup()
  const out = show(true)
  expect(out.getAttribute('aria-label')).toBe('Point at 640 and 0.50: out of the fit, put it back')
  fireEvent.click(out)
  expect(moved).toEqual(['t1', 't1'])
})
