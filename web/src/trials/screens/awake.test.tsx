import '../../../tests/setup'
import { act, renderHook } from '@testing-library/react'
import { useAwake } from './useAwake'

const release = jest.fn(() => Promise.resolve())
let grant: (() => void) | null = null
const request = jest.fn(
  () => new Promise<{ release: typeof release }>((done) => (grant = () => done({ release }))),
)
const see = (state: 'visible' | 'hidden'): void => {
  Object.defineProperty(document, 'visibilityState', { value: state, configurable: true })
  act(() => void document.dispatchEvent(new Event('visibilitychange')))
}
beforeEach(() => {
  jest.clearAllMocks()
  Object.defineProperty(navigator, 'wakeLock', { value: { request }, configurable: true })
  see('visible')
})

test('the screen is kept on while the view is open, asked for again on coming back, and let go after', async () => {
  const view = renderHook(useAwake)
  expect(request).toHaveBeenCalledTimes(1)
  await act(async () => grant?.())
  see('hidden')
  expect(request).toHaveBeenCalledTimes(1)
  see('visible')
  expect(request).toHaveBeenCalledTimes(2)
  await act(async () => grant?.())
  view.unmount()
  expect(release).toHaveBeenCalledTimes(1)
})

test('granted only after the view was left, it is let go at once', async () => {
  const view = renderHook(useAwake)
  view.unmount()
  expect(release).not.toHaveBeenCalled()
  await act(async () => grant?.())
  expect(release).toHaveBeenCalledTimes(1)
})

test('refused, the view goes on without', async () => {
  request.mockImplementationOnce(() => Promise.reject(new Error('low battery')))
  const view = renderHook(useAwake)
  await act(async () => undefined)
  expect(() => view.unmount()).not.toThrow()
})
