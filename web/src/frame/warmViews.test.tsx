import '../../tests/setup'
import { act, cleanup, render, screen } from '@testing-library/react'
import { useEffect } from 'react'
import { warmView, Rehearsal } from './warmViews'

let idle: (() => void)[] = []
const rest = (): Promise<void> =>
  act(async () => {
    const now = idle
    idle = []
    now.forEach((work) => work())
  })
const drawn: string[] = []
const done: string[] = []
const view = (name: string) =>
  function View() {
    drawn.push(name)
    useEffect(() => void done.push(name), [])
    return <button type="button">{name}</button>
  }

beforeEach(() => {
  window.requestIdleCallback = (work) => idle.push(work as () => void)
  window.cancelIdleCallback = () => undefined
  drawn.length = 0
})
afterEach(cleanup)

test('each view is drawn once, one when the page has rested from the one before; nothing of it is seen or done', async () => {
  const [fill, path] = [view('fill'), view('path')]
  await act(async () => void render(<Rehearsal />))
  expect(idle).toEqual([])
  await act(async () => [fill, path, fill].forEach(warmView))
  expect(new Set(drawn)).toEqual(new Set(['fill']))
  await rest()
  expect(new Set(drawn)).toEqual(new Set(['fill', 'path']))
  expect(screen.queryByText('path')).toBeNull()
  await rest()
  drawn.length = 0
  await act(async () => warmView(fill))
  expect({ drawn, done, idle }).toEqual({ drawn: [], done: [], idle: [] })
})

test('one that fails is left to whoever opens it, and the next has its turn', async () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined)
  const Broken = (): never => {
    throw new Error('not yet')
  }
  await act(async () => void render(<Rehearsal />))
  await act(async () => [Broken, view('tanks')].forEach((v) => warmView(v)))
  await rest()
  expect(new Set(drawn)).toEqual(new Set(['tanks']))
  await rest()
})
