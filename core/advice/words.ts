import {
  lowerFirst,
  nameOf,
  put,
  putFigure,
  upperFirst,
  inline,
  type Figure,
  type Sentence,
} from '../figures'
import { sumCarried, type OutletResult } from '../judging'
import type { TankRecord } from '../tanks'
import { SCHOOLS } from '../tanks'
import { moneyText } from '../units'
import { HEAVY } from '../volumes/interior'
import { extrasOf, UNKNOWN_WORDS, type Advice } from './advise'
import type { Price } from './candidate'
import { UNKNOWN, valueOf, type Measures, type Weights } from './score'

/** Money as it is said. */
export const sayPrice = ({ minor, currency }: Price): string => moneyText(minor, currency)

/** Running cost of an option, as it is said: “from” where something of it has no price, which is named. */
export function priceWords({ price, unpriced }: Pick<Advice, 'price' | 'unpriced'>): string | null {
  if (!price) return null
  return unpriced.length ? `from ${sayPrice(price)}; ${listed(unpriced)} extra` : sayPrice(price)
}
/** The same in a sentence of its own; null where nothing of it has a price. */
export function priceLine(a: Pick<Advice, 'price' | 'unpriced'>): string | null {
  const words = priceWords(a)
  return words && (a.unpriced.length ? `${upperFirst(words)}.` : `${words} in all.`)
}

const listed = (words: readonly string[]): string => new Intl.ListFormat('en').format(words)

/** Wishes that nobody knows of an option, as they are said; null where all is known. */
export const unknownWords = ({ unknown }: Pick<Advice, 'unknown'>): string | null =>
  unknown.length ? `unknown: ${unknown.map((u) => UNKNOWN_WORDS[u]).join(', ')}` : null

/** Why an option, and what it needs besides. */
export interface Explained {
  /** Three, with numbers: what it carries, how it runs, and what else speaks most for it. */
  readonly reasons: readonly Sentence[]
  readonly needs: readonly Sentence[]
}

/** Says an option in words; only what is shown is put into them. */
export const explain = (tank: TankRecord, a: Advice, weights: Weights): Explained => ({
  reasons: [capacityReason(tank, a), strengthReason(a), ...otherReasons(a, weights)]
    .filter((s) => s !== null)
    .slice(0, 3),
  needs: needsOf(tank, a),
})

/** The most a filter can carry by its flow alone, as a number without a ±: it may carry nothing. */
function mostOf({ uncertainty: _u, interval: _i, ...most }: Figure): Figure {
  return most
}

function capacityReason(tank: TankRecord, { carries, blind, parts }: Advice): Sentence {
  const times: Figure = {
    id: 'times-the-tank',
    label: 'Times the tank',
    value: carries.value / tank.water.value,
    ...(carries.uncertainty !== undefined && { uncertainty: carries.uncertainty / tank.water.value }),
    dimension: 'ratio',
    provenance: carries.provenance,
    formula: 'supported ÷ water in the tank',
    working: [
      putFigure('carried', carries),
      put('V', 'water in the tank', tank.water.value, 'volume', 'computed'),
    ],
  }
  if (blind)
    return [
      'Not tested: its media are unknown. By flow alone it supports at most ',
      inline(mostOf(carries)),
      '.',
    ]
  const each = parts.map((p) => p.carried.figure)
  if (each.length > 1) {
    const largest = each.reduce((at, f, i) => (f.value > (each[at]?.value ?? 0) ? i : at), 0)
    const others = each.filter((_, i) => i !== largest)
    const [one] = others
    return [
      'Together they support ',
      inline(carries),
      ', ',
      inline(times),
      ` times this tank. While you clean the larger one, the ${each.length > 2 ? 'others support ' : 'other supports '}`,
      inline(others.length === 1 && one ? one : sumCarried('rest', others)),
      '.',
    ]
  }
  return [
    'Supports ',
    inline(carries),
    ', ',
    inline(times),
    ` times this tank. Limit: ${SCHOOLS[parts[0]?.carried.leading ?? 'media-mass'].limit}.`,
  ]
}

function strengthReason({ parts }: Advice): Sentence | null {
  const worst = parts
    .map((p) => p.best)
    .reduce<OutletResult | null>((a, b) => (b && (!a || b.share.value > a.share.value) ? b : a), null)
  if (!worst) return null
  return worst.share.value === 0
    ? ['Gentle everywhere (', worst.name.toLowerCase(), ').']
    : [
        'Gentle: strong current only in the first ',
        inline(worst.share),
        ` of the tank (${lowerFirst(worst.name)}).`,
      ]
}

/** The rest, by how much of the score they bring over half. */
function otherReasons(a: Advice, weights: Weights): readonly Sentence[] {
  const { measures, minutes, noise, price, choices } = a
  const over = (c: keyof Measures): number => {
    const m = measures[c]
    return weights[c] * ((m ? valueOf(m.raw, m) : UNKNOWN) - UNKNOWN)
  }
  const list: readonly (readonly [number, Sentence | null])[] = [
    [over('service'), minutes && ['About ', inline(minutes, 2), ' min of work a month.']],
    [over('noise'), noise && ['Measured at ', inline(noise), '.']],
    [over('price'), price && [priceLine(a) ?? '']],
    [
      over('evidence'),
      choices.every((c) => c.fill.basis === 'measured')
        ? [
            'Installed flow, measured here: ',
            ...choices.flatMap((c, i) => [...(i ? [' and '] : []), inline(c.fill.flow)]),
            '.',
          ]
        : null,
    ],
  ]
  return [...list].sort((a, b) => b[0] - a[0]).flatMap(([, s]) => (s ? [s] : []))
}

/** Needs besides: media, sponge, air pump, aiming, a second pair of hands; a sentence for each model. */
function needsOf(tank: TankRecord, { parts, media, choices }: Advice): readonly Sentence[] {
  const models = parts.filter((p, i) => parts.findIndex((q) => q.choice.fill === p.choice.fill) === i)
  return models.flatMap(({ choice, best, first }): Sentence[] => {
    const { candidate: c, fill, refilled } = choice
    const list: Sentence[] = []
    if (refilled) {
      const names = listed([...new Set(fill.uses.map((u) => nameOf(u.name)))])
      list.push([`better media (${names}${media && choices.length === 1 ? `, ${sayPrice(media)}` : ''})`])
    }
    const extras = extrasOf(tank, { choice, best })
    if (extras.includes('intake-sponge')) list.push(['a sponge on the intake, to keep shrimp and fry out'])
    if (extras.includes('air-pump')) list.push(['an air pump with a check valve'])
    if (extras.includes('plumbing')) list.push(['pipes and hoses between tank and sump'])
    if (extras.includes('spray-bar')) list.push(['a spray bar, because its own outlet is too strong'])
    else if (best && first && best !== first) list.push([`another outlet setting: ${lowerFirst(best.name)}`])
    if (c.fitting?.fullMass && c.fitting.fullMass.value > HEAVY)
      list.push(['two people to lift it: ', inline(c.fitting.fullMass), ' full'])
    if (!list.length) return []
    // One need a sentence, each of its own.
    return list.map(([first = '', ...more], i) => [
      parts.length > 1 && i === 0 ? `${c.name}: ` : '',
      typeof first === 'string' && (i > 0 || parts.length === 1) ? upperFirst(first) : first,
      ...more,
      '.',
    ])
  })
}
