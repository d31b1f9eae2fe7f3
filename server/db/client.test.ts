import { poolOf } from './client'

test('most connections: ten unless it is said, a number that makes sense', () => {
  expect([poolOf(undefined), poolOf(''), poolOf('25')]).toEqual([10, 10, 25])
  for (const text of ['0', '1', '2.5', 'many', '1000'])
    expect(() => poolOf(text)).toThrow(`YPSOMETER_POOL is “${text}”: give a whole number`)
})
