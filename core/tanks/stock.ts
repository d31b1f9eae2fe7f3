/** Who lives in the tank, and what the trade asks of a filter for them. */
export interface StockClass {
  readonly id: string
  readonly label: string
  /** Turnovers per hour asked for; below is too little. */
  readonly minTurnover: number
  /** Turnovers per hour beyond which the flow is too strong for them. */
  readonly maxTurnover: number
  /** Tank litres that 1 kg of good biological media carries. */
  readonly litresPerKilogram: number
  /** The tank is held to the label's maximum divided by this. */
  readonly oversizing: number
  readonly source: string
}

const TRADE = 'common practice, no source'

/** The five classes every verdict speaks of. Common practice, no source. */
export const STOCK_CLASSES: readonly StockClass[] = [
  {
    id: 'light',
    label: 'Light, planted',
    minTurnover: 2.5,
    maxTurnover: 8,
    litresPerKilogram: 150,
    oversizing: 1,
    source: TRADE,
  },
  {
    id: 'normal',
    label: 'Normal',
    minTurnover: 4,
    maxTurnover: 12,
    litresPerKilogram: 100,
    oversizing: 1.5,
    source: TRADE,
  },
  {
    id: 'heavy',
    label: 'Heavy (large, messy, crowded)',
    minTurnover: 6,
    maxTurnover: 15,
    litresPerKilogram: 50,
    oversizing: 2,
    source: TRADE,
  },
  {
    id: 'marine',
    label: 'Marine',
    minTurnover: 8,
    maxTurnover: 30,
    litresPerKilogram: 50,
    oversizing: 2,
    source: TRADE,
  },
  {
    id: 'turtle',
    label: 'Turtles',
    minTurnover: 6,
    maxTurnover: 20,
    litresPerKilogram: 30,
    oversizing: 3.5,
    source: TRADE,
  },
]
