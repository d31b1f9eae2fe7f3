import '../../tests/setup'
import { act, render, screen } from '@testing-library/react'
import { lazyChart } from './lazyChart'

const Part = ({ name }: { readonly name: string }) => <p>{name}</p>
const chart = () => lazyChart(async () => ({ default: Part }), ({ name }: { name: string }) => `room-${name}`) // prettier-ignore
/** Where everything on the page is, from the top of the window (px). */
let top = 0
let idle: (() => void)[] = []
let frames: (() => void)[] = []
/** The page is painted as it stands. */
const painted = (): Promise<void> =>
  act(async () => {
    frames.forEach((work) => work())
    await new Promise((done) => setTimeout(done))
  })
beforeEach(() => {
  idle = []
  frames = []
  window.requestAnimationFrame = (work) => frames.push(work as () => void)
  window.cancelAnimationFrame = (n) => void (frames[n - 1] = () => undefined)
  Element.prototype.getBoundingClientRect = () => ({ top, bottom: top + 300 }) as DOMRect
  window.requestIdleCallback = (work) => idle.push(work as () => void)
  window.cancelIdleCallback = (n) => void (idle[n - 1] = () => undefined)
})

test('one in the window comes once the page round it is painted, in the room that was kept for it', async () => {
  top = 100
  const Chart = chart()
  const { container } = render(<Chart name="curve" />)
  expect(container.firstElementChild?.className).toBe('room-curve')
  expect(container.textContent).toBe('')
  await painted()
  expect(await screen.findByText('curve')).toBeTruthy()
  expect(idle).toEqual([])
})

test('one below it waits until the page has nothing else to do, and says nothing meanwhile', async () => {
  top = 2000
  const Chart = chart()
  await act(() => Chart.ahead())
  const { container, unmount } = render(<Chart name="below" />)
  expect(container.textContent).toBe('')
  expect(container.firstElementChild?.className).toBe('room-below')
  await act(async () => idle.forEach((work) => work()))
  expect(screen.getByText('below')).toBeTruthy()
  unmount()
  render(<Chart name="gone" />).unmount()
  await act(async () => idle.forEach((work) => work()))
  expect(screen.queryByText('gone')).toBeNull()
})
