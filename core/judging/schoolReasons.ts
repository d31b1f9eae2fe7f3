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

/** Limits of the balance, in words. */
const LIMIT_WORDS = {
  ammonia: 'ammonia that a kit would show',
  unionised: 'un-ionised ammonia',
  nitrite: 'nitrite that a kit would show',
  oxygen: 'oxygen at night',
  alkalinity: 'alkalinity, which its changes do not bring back',
  nitrate: 'nitrate',
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

/** The binding limit at the top for a class, and why. */
export function bindingSentence(c: ClassCase): Sentence {
  const { range, of, stock } = c
  const lower = stock.label.toLowerCase()
  const top = inline(capacityFigure(of, stock, c.claimedMax))
  switch (range.binding) {
    case 'media-mass':
      return [
        'What binds at the top is media: what is in it is worth ',
        ...(of.mass ? [inline(of.mass)] : []),
        ' of good sintered media',
        ...(of.foam >= 0.05 ? [`, ${Math.round(of.foam * 100)} % of that by foam`] : []),
        ', which carry ',
        top,
        ` for “${lower}”, at ${stock.litresPerKilogram} L per kg.`,
      ]
    case 'balance': {
      const limit = range.schools.find((s) => s.school === 'balance')?.limit
      return [
        'What binds at the top is the balance of feed: its films take up ',
        inline(takenFigure(of, stock)),
        ' of nitrogen before a kit shows colour, which carries ',
        top,
        ` for “${lower}”`,
        limit ? `; first to go is ${LIMIT_WORDS[limit]}.` : '.',
      ]
    }
    case 'oversizing':
      return [
        `For “${lower}” filters are rated against filters: ${stock.oversizing} times the tank. By its label it carries `,
        top,
        '.',
      ]
    case 'turnover':
    case 'minima': {
      const asked = range.binding === 'minima' ? stock.minTurnover : 'floor'
      return [
        range.leading === 'turnover' ? 'Only its turnover is known: ' : 'What binds at the top is turnover: ',
        inline(of.flow),
        asked === 'floor'
          ? ' reaches every corner of a tank up to about '
          : ` gives the ${asked} turnovers an hour some ask for up to `,
        top,
        '.',
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
    label: 'Taken up at 0.12 mg/L, as N',
    value: films ? takenBy(KIT_ZERO, films, most) : 0,
    dimension: 'feed',
    unit: 'mg/d',
    provenance: 'computed',
    formula:
      'F = Σ q (S − b);  [K ln(s/b) + s − b]/r_max + ln[r(s)/r(b)]/k = A/q, s at the film, k what passes the standing water',
    working: [
      put('S', 'half of a kit’s first step', KIT_ZERO, 'concentration', 'rule'),
      put('r_max', 'most a film takes beside organic carbon, mg/m² a day', most * DAY * 1e6, 'ratio', 'rule'),
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
  return ['The other schools say of the same fill: ', ...listed(says), '.', ...differs(c)]
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
      ' Both read the same area: the balance comes to ',
      inline(reserveFigure(balance, mass), 2),
      ' times what mass allows. That is the reserve mass keeps, for fouled media, feast days and ripening.',
    ]
  if (mass > balance * APART)
    return limit === 'oxygen'
      ? [' The balance stops where oxygen at night runs short, which no media mend.']
      : [' Mass counts area; the balance asks as well what is fed, and how warm and salt the water is.']
  return [' Mass and balance agree within their bands.']
}

/** Tank by the balance ÷ tank by mass: the reserve in the rule of mass. */
const reserveFigure = (balance: number, mass: number): Figure => ({
  id: 'reserve-of-mass',
  label: 'Reserve: feed balance ÷ media mass',
  value: balance / mass,
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'V by balance ÷ V by mass',
  working: [
    put('V_b', 'by feed balance', balance, 'volume', 'computed'),
    put('V_m', 'by media mass', mass, 'volume', 'rule'),
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
  source: 'the balance of feed, worked out again',
})

/** Gain from twice the flow and from twice the media: the argument about turnover, in numbers. */
export function leverageSentence({ of, stock }: ClassCase): Sentence | null {
  if (!of.films) return null
  const input = { flow: of.flow, outlet: of.outlet }
  const more = leverage(keepingOfClass(stock, input), of.films)
  if (!more) return null
  return [
    'To its films twice the flow is worth ',
    inline(shareFigure('twice-flow', 'Twice the flow', more.flow)),
    ' more, twice the media ',
    inline(shareFigure('twice-media', 'Twice the media', more.media)),
    ' more.',
  ]
}

/** At its largest tank the water turns over so slowly that corners are not reached; null where it does not. */
export function floorSentence(c: ClassCase): Sentence | null {
  const floor = c.range.schools.find((s) => s.school === 'turnover')
  if (!floor?.interval || c.range.binding === 'turnover' || !(c.range.max > floor.interval[1])) return null
  return [
    'At its largest tank the water turns over ',
    inline(
      {
        id: 'turns-at-top',
        label: 'Turnovers per hour at its largest tank',
        value: turnover(c.of.flow.value, c.range.max),
        dimension: 'ratio',
        provenance: 'computed',
        formula: 'n = Q ÷ V',
        working: [putFigure('Q', c.of.flow), put('V', 'largest tank', c.range.max, 'volume', 'rule')],
      },
      2,
    ),
    ' times an hour, below the floor of the house: far corners may lie still, whatever the media could carry. The floor gives ',
    ...said(c, floor),
    '.',
  ]
}

/** Whole packs of what is in it that the missing kilograms come to. */
const packsOf = (missing: number, pack: { readonly name: string; readonly mass: number } | null): Sentence =>
  pack && pack.mass > 0
    ? [`, ${Math.ceil(missing / pack.mass - 1e-9)} packs of ${pack.name.toLowerCase()} more`]
    : []

/** Mass of media that would make the claim true; null where it holds or nothing is claimed. */
export function takesSentence(
  c: ClassCase,
  proposed: { readonly name: string; readonly carries: Figure } | null,
): Sentence | null {
  const { claimedMax, range, stock, of } = c
  if (!claimedMax || !(claimedMax > range.max)) return null
  const parts: Sentence[] = []
  if (range.leading === 'media-mass' && of.mass) {
    const need: Figure = {
      id: 'mass-needed',
      label: 'Good sintered media the claim asks for',
      value: (claimedMax * 1000) / stock.litresPerKilogram,
      dimension: 'mass',
      provenance: 'rule',
      formula: 'm = claim ÷ litres per kilogram',
      working: [
        put('claim', 'largest tank claimed', claimedMax, 'volume', 'printed'),
        put('L/kg', 'litres one kilogram carries', stock.litresPerKilogram, 'ratio', 'rule'),
      ],
      source: stock.marks.litresPerKilogram.source,
    }
    parts.push([
      inline(need, 2),
      ' of good sintered media in place of ',
      inline(of.mass),
      ...packsOf(need.value - of.mass.value, of.pack ?? null),
    ])
  } else if (of.films && range.max > 0)
    parts.push([
      inline(
        {
          id: 'surface-needed',
          label: 'Surface the claim asks for ÷ what there is',
          value: claimedMax / range.max,
          dimension: 'ratio',
          provenance: 'computed',
          formula: 'claim ÷ V',
          working: [
            put('claim', 'largest tank claimed', claimedMax, 'volume', 'printed'),
            put('V', 'largest tank it carries', range.max, 'volume', 'computed'),
          ],
        },
        2,
      ),
      ' times the surface that water meets',
    ])
  if (proposed)
    parts.push([
      `“${proposed.name}” in it, which carries `,
      inline(proposed.carries),
      proposed.carries.value >= claimedMax ? '' : ' and is still short of it',
    ])
  return parts.length ? ['To make the claim true it would take ', ...listed(parts), '.'] : null
}
