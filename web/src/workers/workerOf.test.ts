import '../../tests/setup'
import { workerOf } from './workerOf'

interface Sum {
  add(a: number, b: number): number
}
/** Answers of the workers in the order they were made; one that cannot be read answers nothing. */
const mockAnswers: ((a: number, b: number) => Promise<number>)[] = []
jest.mock('comlink', () => ({ wrap: (w: { made: number }) => ({ add: mockAnswers[w.made] }) }))

const never = () => new Promise<never>(() => undefined)
const add = async (a: number, b: number): Promise<number> => a + b
interface Made {
  readonly made: number
  onerror?: (event: object) => void
  readonly terminate: () => void
}
let made: Made[] = []
let ended: number[] = []
const sums = () =>
  workerOf<Sum>(() => {
    const n = made.length
    const worker: Made = { made: n, terminate: () => void ended.push(n) }
    made.push(worker)
    return worker as unknown as Worker
  })
const server = (...there: boolean[]): void => {
  globalThis.fetch = jest.fn(async () => {
    const is = there.length > 1 ? there.shift() : there[0]
    if (!is) throw new TypeError('Failed to fetch')
    return { ok: true } as Response
  }) as typeof fetch
}

beforeEach(() => {
  jest.useFakeTimers()
  made = []
  ended = []
})
afterEach(() => jest.useRealTimers())

test('one whose code did not come is started again once the server is there, and asked what it was asked', async () => {
  mockAnswers.splice(0, 9, never, never, add)
  server(false, true)
  const worker = sums()
  const sum = worker.remote.add(2, 3)
  made[0]?.onerror?.(new Event('error'))
  await jest.advanceTimersByTimeAsync(400)
  expect(made).toHaveLength(1)
  await jest.advanceTimersByTimeAsync(200)
  expect(made).toHaveLength(2)
  // The server came back between the two: the second could not be read either.
  made[1]?.onerror?.(new Event('error'))
  expect(await sum).toBe(5)
  expect(await worker.remote.add(1, 1)).toBe(2)
  expect(made).toHaveLength(3)
})

test('nobody asked it yet: whoever does gets a new one', async () => {
  mockAnswers.splice(0, 9, never, add)
  const worker = sums()
  made[0]?.onerror?.(new Event('error'))
  expect(await worker.remote.add(2, 2)).toBe(4)
  expect(made).toHaveLength(2)
})

test('what it throws is told and not tried again; what a broken script threw too', async () => {
  mockAnswers.splice(0, 9, () => Promise.reject(new RangeError('too much')))
  server(true)
  await expect(sums().remote.add(1, 2)).rejects.toThrow('too much')
  mockAnswers.splice(0, 9, add, never)
  const broken = sums().remote.add(1, 2)
  made[1]?.onerror?.(new ErrorEvent('error', { message: 'x is not defined' }))
  await expect(broken).rejects.toThrow('x is not defined')
  expect(made).toHaveLength(2)
})

test('one that was ended starts nothing more', async () => {
  mockAnswers.splice(0, 9, never, add)
  server(false, true)
  const worker = sums()
  void worker.remote.add(1, 2)
  worker.terminate()
  made[0]?.onerror?.(new Event('error'))
  await jest.advanceTimersByTimeAsync(9000)
  expect([made.length, ended]).toEqual([1, [0]])
})
