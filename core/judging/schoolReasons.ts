import { DAY, KIT_ZERO, leverage, mostHere, takenBy } from '../biology'
import { put, putFigure, inline, type Figure, type InlineNumber, type Sentence } from '../figures'
import {
  capacityFigure,
  keepingOfClass,
  SCHOOLS,
  schoolFigure,
  turnover,
  type CapacityFigures,
  type SchoolSays,
  type StockClass,
  type SupportedRange,
} from '../tanks'

/** What goes wrong first as a tank grows. */
const FIRST_LIMIT = {
  ammonia: 'Ammonia rises first',
  unionised: 'Un-ionised ammonia rises first',
  nitrite: 'Nitrite rises first',
  oxygen: 'Oxygen at night runs short first',
  alkalinity: 'Hardness (KH) runs out first',
  nitrate: 'Nitrate rises first',
} as const

/** The case of a class: the fill’s numbers, the range they make, the label’s top. */
export interface ClassCase {
  readonly of: CapacityFigures & { readonly pack?: { readonly name: string; readonly mass: number } | null }
  readonly range: SupportedRange
  readonly stock: StockClass
  readonly claimedMax: number | null
}

const said = (c: ClassCase, s: SchoolSays): readonly [InlineNumber] | readonly [] => {
  const figure = schoolFigure(s, c.of, c.stock, c.claimedMax)
  return figure ? [inline(figure)] : []
}
const listed = (parts: readonly Sentence[]): Sentence =>
  parts.flatMap((p, i): Sentence => (i === 0 ? p : [i === parts.length - 1 ? ' and ' : ', ', ...p]))

/** Tank (m³) that one kilogram of good sintered media supports, with its band. */
const litresPerKilogram = ({ litresPerKilogram: litres, marks }: ClassCase['stock']): Figure => ({
  id: 'litres-per-kilogram',
  label: 'Tank supported by 1 kg of good sintered media',
  value: litres / 1000,
  uncertainty: (litres / 1000) * marks.litresPerKilogram.band,
  dimension: 'volume',
  provenance: 'rule',
  source: marks.litresPerKilogram.source,
})

/** The binding limit at the top for a class, and why. */
export function bindingSentence(c: ClassCase): Sentence {
  const { range, of, stock } = c
  const lower = stock.label.toLowerCase()
  const top = inline(capacityFigure(of, stock, c.claimedMax))
  switch (range.binding) {
    case 'media-mass':
      return [
        'Media is the limit. The media equal ',
        ...(of.mass ? [inline(of.mass)] : []),
        ' of good sintered media',
        ...(of.foam >= 0.995 ? [', all of it from foam'] : of.foam >= 0.05 ? [`, ${Math.round(of.foam * 100)} % of that from foam`] : []), // prettier-ignore
        '. At ',
        inline(litresPerKilogram(stock)),
        ' per kg (rule of thumb) that supports ',
        top,
        ` (${lower} stocking).`,
      ]
    case 'balance': {
      const limit = range.schools.find((s) => s.school === 'balance')?.limit
      return [
        'Bioload is the limit. The bacteria process ',
        inline(takenFigure(of, stock)),
        ' of nitrogen; that supports ',
        top,
        ` (${lower} stocking).`,
        limit ? ` ${FIRST_LIMIT[limit]}.` : '',
      ]
    }
    case 'oversizing':
      return [
        `Oversizing is the limit: ${stock.oversizing} times the tank for ${lower} stocking. By its label it supports `,
        top,
        '.',
      ]
    case 'turnover':
    case 'minima': {
      const asked = range.binding === 'minima' ? stock.minTurnover : 'floor'
      return [
        range.leading === 'turnover'
          ? 'No media recorded, so only circulation can be judged. '
          : 'Circulation is the limit. ',
        inline(of.flow),
        asked === 'floor'
          ? ' circulates a tank of up to '
          : ` gives ${asked} turnovers an hour in a tank of up to `,
        top,
        range.leading === 'turnover' ? '. It may support far less.' : '.',
      ]
    }
  }
}

/** Nitrogen that films take up a day at what a kit reads as zero. */
function takenFigure(of: CapacityFigures, stock: StockClass): Figure {
  const { films, flow } = of
  const most = mostHere(keepingOfClass(stock, of))
  return {
    id: `films-take-${stock.id}`,
    label: 'Processed at 0.12 mg/L, as N',
    value: films ? takenBy(KIT_ZERO, films, most) : 0,
    dimension: 'feed',
    unit: 'mg/d',
    provenance: 'computed',
    formula:
      'F = Σ q (S − b);  [K ln(s/b) + s − b]/r_max + ln[r(s)/r(b)]/k = A/q, s at the bacteria, k what passes the standing water',
    working: [
      put('S', 'half of a test kit’s first step', KIT_ZERO, 'concentration', 'rule'),
      put(
        'r_max',
        'most that bacteria process beside organic carbon, mg/m² a day',
        most * DAY * 1e6,
        'ratio',
        'rule',
      ),
      put('Q', flow.label.toLowerCase(), flow.value, 'flow', flow.provenance),
    ],
    source: 'Zhu and Chen 1999 (from memory); Levenspiel, plug flow',
  }
}

/** The other schools on the same fill, and why they say something else. */
export function besideSentence(c: ClassCase): Sentence | null {
  const others = c.range.schools.filter((s) => s.volume !== null && s.school !== c.range.leading)
  if (!others.length) return null
  const says = others.map((s): Sentence => [`${SCHOOLS[s.school].words} `, ...said(c, s)])
  const top = c.range.max
  const more = others.every((s) => (s.volume ?? 0) > top)
  const less = others.every((s) => (s.volume ?? 0) < top)
  const opens = `Other sizing rules give ${more ? 'more: ' : less ? 'less: ' : 'different sizes: '}`
  return [others.length === 1 ? `Another sizing rule gives ${more ? 'more: ' : less ? 'less: ' : 'the same: '}` : opens, ...listed(says), '.', ...differs(c)] // prettier-ignore
}

/** Two schools further apart than this differ (common practice, no source). */
const APART = 1.5

/** Why mass and balance differ, where they do. */
function differs({ range }: ClassCase): Sentence {
  const volume = (school: SchoolSays['school']): number | null =>
    range.schools.find((s) => s.school === school)?.volume ?? null
  const [mass, balance] = [volume('media-mass'), volume('balance')]
  if (!mass || !balance) return []
  const limit = range.schools.find((s) => s.school === 'balance')?.limit
  if (balance > mass * APART)
    return [
      ' The bioload balance gives ',
      inline(reserveFigure(balance, mass), 2),
      ' times the media rule. That reserve covers clogged media, heavy feeding and cycling.',
    ]
  if (mass > balance * APART)
    return limit === 'oxygen'
      ? [' The bioload balance stops where oxygen at night runs short. More media cannot mend that.']
      : [' The media rule counts only surface. The balance also counts feed, temperature and salinity.']
  return [' Both main rules agree within their uncertainty.']
}

/** Tank by the balance ÷ tank by mass: the reserve in the rule of mass. */
const reserveFigure = (balance: number, mass: number): Figure => ({
  id: 'reserve-of-mass',
  label: 'Reserve: bioload balance ÷ media weight',
  value: balance / mass,
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'V by bioload ÷ V by weight',
  working: [
    put('V_b', 'by bioload balance', balance, 'volume', 'computed'),
    put('V_m', 'by media weight', mass, 'volume', 'rule'),
  ],
})

const shareFigure = (id: string, label: string, value: number): Figure => ({
  id,
  label,
  value,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula: 'V(twice) ÷ V − 1',
  working: [],
  source: 'the bioload balance, calculated again',
})

/** Gain from twice the flow and from twice the media: the argument about turnover, in numbers. */
export function leverageSentence({ of, stock }: ClassCase): Sentence | null {
  if (!of.films) return null
  const input = { flow: of.flow, outlet: of.outlet }
  const more = leverage(keepingOfClass(stock, input), of.films)
  if (!more) return null
  return [
    more.media > 2 * more.flow
      ? 'More media helps, more flow hardly does: double media +'
      : 'Double media gives +',
    inline(shareFigure('twice-media', 'Double media', more.media)),
    ', double flow +',
    inline(shareFigure('twice-flow', 'Double flow', more.flow)),
    '.',
  ]
}

/** At its largest tank the water turns over so slowly that corners are not reached; null where it does not. */
export function floorSentence(c: ClassCase): Sentence | null {
  const floor = c.range.schools.find((s) => s.school === 'turnover')
  if (!floor?.interval || c.range.binding === 'turnover' || !(c.range.max > floor.interval[1])) return null
  return [
    'Circulation is low in the largest tank: ',
    inline(
      {
        id: 'turns-at-top',
        label: 'Turnovers per hour in the largest tank',
        value: turnover(c.of.flow.value, c.range.max),
        dimension: 'ratio',
        provenance: 'computed',
        formula: 'n = Q ÷ V',
        working: [putFigure('Q', c.of.flow), put('V', 'largest tank', c.range.max, 'volume', 'rule')],
      },
      2,
    ),
    ' turnovers an hour, below your minimum. Corners may stay still. Your minimum gives ',
    ...said(c, floor),
    '.',
  ]
}

/** Whole packs of what is in it that the missing kilograms come to. */
const packsOf = (missing: number, pack: { readonly name: string; readonly mass: number } | null): Sentence =>
  pack && pack.mass > 0
    ? [` (${packs(Math.ceil(missing / pack.mass - 1e-9))} more of ${pack.name.toLowerCase()})`]
    : []
const packs = (n: number): string => `${n} ${n === 1 ? 'pack' : 'packs'}`

/** Mass of media that would make the claim true; null where it holds or nothing is claimed. */
export function takesSentence(c: ClassCase, proposed: { readonly supports: Figure } | null): Sentence | null {
  const { claimedMax, range, stock, of } = c
  if (!claimedMax || !(claimedMax > range.max)) return null
  const parts: Sentence[] = []
  if (range.leading === 'media-mass' && of.mass) {
    const need: Figure = {
      id: 'mass-needed',
      label: 'Sintered media the claim would need',
      value: (claimedMax * 1000) / stock.litresPerKilogram,
      dimension: 'mass',
      provenance: 'rule',
      formula: 'm = claim ÷ litres per kilogram',
      working: [
        put('claim', 'largest tank on the label', claimedMax, 'volume', 'printed'),
        put('L/kg', 'litres one kilogram supports', stock.litresPerKilogram, 'ratio', 'rule'),
      ],
      source: stock.marks.litresPerKilogram.source,
    }
    parts.push([
      inline(need, 2),
      ' of good sintered media instead of ',
      inline(of.mass),
      ...packsOf(need.value - of.mass.value, of.pack ?? null),
    ])
  } else if (of.films && range.max > 0)
    parts.push([
      inline(
        {
          id: 'surface-needed',
          label: 'Surface the claim would need ÷ what there is',
          value: claimedMax / range.max,
          dimension: 'ratio',
          provenance: 'computed',
          formula: 'claim ÷ V',
          working: [
            put('claim', 'largest tank on the label', claimedMax, 'volume', 'printed'),
            put('V', 'largest tank supported', range.max, 'volume', 'computed'),
          ],
        },
        2,
      ),
      ' times the media surface',
    ])
  const best: Sentence = proposed
    ? [
        ` The best setup found supports `,
        inline(proposed.supports),
        proposed.supports.value >= claimedMax ? ', which is enough.' : '.',
      ]
    : []
  if (!parts.length) return best.length ? best : null
  return [
    'To reach ',
    inline({
      id: 'claim-to-reach',
      label: 'Largest tank on the label',
      value: claimedMax,
      dimension: 'volume',
      provenance: 'printed',
      conditions: ['largest tank the label names'],
    }),
    ' it would need ',
    ...listed(parts),
    '.',
    ...best,
  ]
}
