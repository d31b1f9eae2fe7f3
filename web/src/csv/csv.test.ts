import '../../tests/setup'
import fc from 'fast-check'
import { TARGETS } from '../views/bench/importBody'
import { guessMapping, takeTable, type Target } from './mapping'
import { readCell, readTable } from '@ypsometer/contract/csv'

const target = (id: Target['id']): Target => {
  const found = TARGETS.find((t) => t.id === id)
  if (!found) throw new Error(id)
  return found
}
const take = (id: Target['id'], text: string) => {
  const table = readTable(text)
  return takeTable(table, guessMapping(table, target(id)), target(id))
}

describe('reading a table (RFC 4180)', () => {
  test.each([
    ['a,b\n1,2', ',', '.'],
    ['a;b\n1,5;2', ';', ','],
    ['a\tb\n1,5\t2', '\t', ','],
    ['a|b\n1.5|2', '|', '.'],
    ['\ufeffa;b\r\n1.5;2\r\n', ';', '.'],
  ])('%j: delimiter and decimal sign are found', (text, delimiter, decimal) => {
    expect(readTable(text)).toMatchObject({ delimiter, decimal, header: ['a', 'b'] })
  })
  test('lines keep their numbers past empty lines and quoted line breaks; a first row of numbers is no header', () => {
    const t = readTable('time,note\n\n1,"two\nlines"\n3,x')
    expect(t.rows.map((r) => r.line)).toEqual([3, 5])
    expect(readTable('1,2\n3,4').header).toBeNull()
  })
  test.each([
    ['1,5', ',', 1.5],
    ['1.234,5', ',', 1234.5],
    ['1 234,5', ',', 1234.5],
    ['1,234.5', '.', 1234.5],
    ['-3', '.', -3],
    ['−3', '.', -3],
    ['2e-3', '.', 0.002],
    ['.5', '.', 0.5],
    ['', '.', NaN],
    ['viel', ',', NaN],
    ['1,5', '.', NaN],
    ['1.2.3', '.', NaN],
    ['12 L', '.', NaN],
    ['-', '.', NaN],
  ] as const)('%j with decimal %j is %d', (text, decimal, value) => {
    expect(readCell(text, decimal)).toBe(value)
  })
  test('a number written with either sign is read back', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (v) => {
        const text = v.toFixed(3)
        expect(readCell(text, '.')).toBeCloseTo(v, 3)
        expect(readCell(text.replace('.', ','), ',')).toBeCloseTo(v, 3)
      }),
    )
  })
  test('whatever is pasted, it neither throws nor hangs', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        for (const t of TARGETS) take(t.id, text)
      }),
    )
  })
})

describe('columns to quantities', () => {
  test('headers in other tongues and with units are understood; values come out in SI', () => {
    const r = take('runs', 'Volumen [L];Zeit [min]\n5,0;0,75\n5,0;0,74')
    expect(r.problem).toBeNull()
    expect(r.rows[0]).toEqual({ volume: 0.005, seconds: 45 })
    expect(take('curve', 'Flow, gph\tHead (ft)\n100\t3').rows[0]).toEqual({
      flow: expect.closeTo((100 * 3.785411784e-3) / 3600, 12),
      head: expect.closeTo(0.9144, 10),
    })
  })
  test('three bad rows are three messages with their lines, and the good ones alone are not an import', () => {
    const r = take('runs', 'V;t\n5,0;45\n5,0;lange\n;45\n5,0;0,1\n5,0;44')
    expect(r.bad.map((b) => [b.line, b.column])).toEqual([
      [3, 't'],
      [4, 'V'],
      [5, 't'],
    ])
    expect(r.bad[0]?.message).toContain('“lange” is no number')
    expect(r.bad[1]?.message).toContain('is empty')
    expect(r.bad[2]?.message).toContain('from 0.5 s')
    expect(r.rows).toHaveLength(2)
  })
  test('a tracer with gaps: a missing cell is a gap of its own point, not a zero and no fault', () => {
    const r = take('dye', 'time,near,far\n0,0,0\n5,3,\n10,5,1')
    expect(r.bad).toEqual([])
    expect(r.gaps).toBe(1)
    expect(r.series.map((s) => [s.name, s.times, s.values])).toEqual([
      ['near', [0, 5, 10], [0, 3, 5]],
      ['far', [0, 10], [0, 1]],
    ])
  })
  test('time that turns back is a fault of its line', () => {
    expect(take('power', 't,W\n0,14\n2,14\n1,15').bad).toEqual([
      { line: 4, column: 'Time', message: 'is not later than the row before' },
    ])
  })
  test('a column that is needed and not chosen, or chosen twice, is said', () => {
    const table = readTable('a,b\n1,2')
    const t = target('runs')
    expect(takeTable(table, [null, null], t).problem).toContain('No column is volume or seconds yet')
    const both = { role: 'volume', unit: 'L' }
    expect(takeTable(table, [both, both], t).problem).toContain('No column is seconds yet')
    expect(
      takeTable(
        table,
        [
          { role: 'seconds', unit: 's' },
          { role: 'seconds', unit: 's' },
        ],
        t,
      ).problem,
    ).toContain('No column is volume')
  })
})
