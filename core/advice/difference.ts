import { type Sentence, type Figure, inline } from '../figures'
import type { Candidate, Price } from './candidate'
import { type CompareRow, doubtApart } from './compare'
import { sayPrice } from './words'

/** Gains for the difference in price, for rows where more, or less, is better. */
const BUYS: readonly (readonly [id: string, more: string, less: string, wanted: 'more' | 'less'])[] = [
  ['carries', 'more supported', 'less supported', 'more'],
  ['flow', 'more flow', 'less flow', 'more'],
  ['noise', 'louder', 'quieter', 'less'],
  ['watts', 'more power used', 'less power used', 'less'],
  ['media-seconds', 'longer to reach the media', 'quicker to reach the media', 'less'],
]

/** “For the difference you get …”: the i-th model against the first, by what is outside their doubts. */
export function forTheDifference(
  models: readonly Candidate[],
  rows: readonly CompareRow[],
  i: number,
  prices?: ReadonlyMap<string, Price>,
): Sentence | null {
  const [a, b] = [models[0], models[i]]
  if (!a || !b || i === 0) return null
  const [pa, pb] = [prices?.get(a.id) ?? a.price, prices?.get(b.id) ?? b.price]
  if (!pa || !pb || pa.currency !== pb.currency) return null
  const difference = Math.abs(pb.minor - pa.minor)
  const head =
    difference === 0
      ? `${b.name} costs the same as ${a.name}.`
      : `${b.name} costs ${sayPrice({ minor: difference, currency: pa.currency })} ${pb.minor > pa.minor ? 'more' : 'less'} than ${a.name}.`
  const [gains, losses]: [Sentence[], Sentence[]] = [[], []]
  for (const [id, more, less, wanted] of BUYS) {
    const row = rows.find((r) => r.id === id)
    const [x, y] = [row?.cells[0]?.figure, row?.cells[i]?.figure]
    const how = row?.cells[i]?.apart
    if (!x || !y || !how || how === 'none') continue
    const by: Figure = {
      id: `difference-${id}-${b.id}`,
      label: `${row.label}: difference`,
      value: Math.abs(y.value - x.value),
      uncertainty: doubtApart(y, x),
      dimension: y.dimension,
      ...(y.unit && { unit: y.unit }),
      provenance: 'computed',
      formula: '|b − a|; U = √(U_a² + U_b²), less the uncertainty both share',
      working: [
        { symbol: 'a', label: a.name, value: x.value, dimension: x.dimension },
        { symbol: 'b', label: b.name, value: y.value, dimension: y.dimension },
      ],
      source: 'GUM 5.2',
    }
    const good = (how === 'more') === (wanted === 'more')
    ;(good ? gains : losses).push([inline(by), ` ${how === 'more' ? more : less}`])
  }
  if (!gains.length && !losses.length) return [`${head} No difference beyond the uncertainty.`]
  const told = (words: string, list: readonly Sentence[]): Sentence =>
    list.length ? [` ${words}: `, ...list.flatMap((s, n): Sentence => (n ? [', ', ...s] : s)), '.'] : []
  return [head, ...told('You get', gains), ...told('But', losses)]
}
