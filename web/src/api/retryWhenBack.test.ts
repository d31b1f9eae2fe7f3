/** @jest-environment node */
import { retryWhenBack } from './retryWhenBack'

const reads: jest.Mock = jest.fn()
const health: jest.Mock = jest.fn()
beforeEach(() => {
  jest.useFakeTimers()
  reads.mockReset()
  health.mockReset()
  globalThis.fetch = health as typeof fetch
})
afterEach(() => jest.useRealTimers())

test('what comes at once asks for nothing else', async () => {
  reads.mockResolvedValue('code')
  expect(await retryWhenBack(reads)).toBe('code')
  expect(health).not.toHaveBeenCalled()
})

test('with the server away it waits longer and longer, at most 4 s, until it comes', async () => {
  reads.mockRejectedValue(new TypeError('Failed to fetch dynamically imported module'))
  health.mockRejectedValue(new TypeError('Failed to fetch'))
  const read = retryWhenBack(reads)
  const tries = []
  for (const pause of [500, 1000, 2000, 4000, 4000]) {
    await jest.advanceTimersByTimeAsync(pause - 1)
    tries.push(reads.mock.calls.length)
    await jest.advanceTimersByTimeAsync(1)
  }
  expect(tries).toEqual([1, 2, 3, 4, 5])
  reads.mockResolvedValue('code')
  await jest.advanceTimersByTimeAsync(4000)
  expect(await read).toBe('code')
})

test('a server that is not ready is one that is away', async () => {
  reads.mockRejectedValueOnce(new TypeError('Failed')).mockResolvedValue('code')
  health.mockResolvedValue({ ok: false, status: 503 })
  const read = retryWhenBack(reads)
  await jest.advanceTimersByTimeAsync(499)
  expect(reads).toHaveBeenCalledTimes(1)
  await jest.advanceTimersByTimeAsync(1)
  expect(await read).toBe('code')
})

test('what fails with the server there is tried once more and then told; what cannot come of it, at once', async () => {
  reads.mockRejectedValue(new TypeError('gone with the last build'))
  health.mockResolvedValue({ ok: true })
  await expect(retryWhenBack(reads)).rejects.toThrow('gone with the last build')
  expect(reads).toHaveBeenCalledTimes(2)
  await expect(retryWhenBack(reads, () => false)).rejects.toThrow('gone')
  expect(reads).toHaveBeenCalledTimes(3)
})
