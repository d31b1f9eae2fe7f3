import { AS_ITS_CLASS, quickTank, stockAsAnswered } from '.'
import { classOf } from './candidates.fixture'

const normal = classOf('normal')

describe('a tank as it is told', () => {
  test('by its water alone: a box twice as long as wide and high', () => {
    // 128 L: 8 dm long, 4 wide, 4 high.
    const t = quickTank(0.128, normal)
    expect([t.length, t.width, t.waterLevel]).toEqual([expect.closeTo(0.8, 9), expect.closeTo(0.4, 9), expect.closeTo(0.4, 9)]) // prettier-ignore
    expect(t.water.value).toBe(0.128)
    expect(t.water.conditions).toEqual(['as entered'])
    expect(t.sizesAssumed).toBe('a tank twice as long as wide and high')
    // It was printed, not worked out.
    expect(t.water).not.toHaveProperty('formula')
    expect(t.water).not.toHaveProperty('working')
  })
  test('by its shape and sizes: the height is that of the water, three centimetres under the rim', () => {
    const t = quickTank({ shape: 'box', length: 0.8, width: 0.35, height: 0.4 }, normal)
    expect([t.waterLevel, t.height]).toEqual([0.4, expect.closeTo(0.43, 9)])
    // 8 · 3.5 · 4 dm³ = 112 L over 28 dm².
    expect(t.water.value).toBeCloseTo(0.112, 9)
    expect(t.water.conditions).toEqual(['as entered', 'a box'])
    expect(t.water.formula).toBe('V = floor · height of the water')
    expect(t.water.working?.map((w) => [w.symbol, w.value, w.dimension])).toEqual([
      ['A', expect.closeTo(0.28, 9), 'area'],
      ['h', 0.4, 'length'],
    ])
  })
  test('a shape of its own is named', () => {
    const of = (told: Parameters<typeof quickTank>[0]) => quickTank(told, normal).water.conditions?.[1]
    expect(of({ shape: 'cylinder', diameter: 0.5, height: 0.5 })).toBe('a cylinder')
    expect(of({ shape: 'bow-front', length: 0.8, width: 0.35, bowWidth: 0.45, height: 0.4 })).toBe(
      'a bow front',
    )
  })
})

test('plants: nobody said, none, or at least as much as planted tanks take', () => {
  const share = (planted: boolean | null) => stockAsAnswered(normal, { ...AS_ITS_CLASS, planted }).plantShare
  expect([share(null), share(false)]).toEqual([normal.plantShare, 0])
  expect(share(true)).toBeGreaterThanOrEqual(Math.max(normal.plantShare, 0.3))
  const light = { ...normal, plantShare: 0.9 }
  expect(stockAsAnswered(light, { ...AS_ITS_CLASS, planted: true }).plantShare).toBe(0.9)
})
