import { ADVICE_RULE, type AdviceRule } from '@ypsometer/core/advice/rule'
import { CAPACITY_RULE } from '@ypsometer/core/tanks/rule'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { HouseRule } from './fills'
import type { StockClassRow } from './stock'

/** The classes with the order of schools of the house rule that is held to. */
export const judgedClasses = (
  rows: readonly StockClassRow[],
  house: Pick<HouseRule, 'capacity'> | undefined,
): readonly (StockClassRow & StockClass)[] =>
  rows.map((r) => ({ ...r, rule: house?.capacity ?? CAPACITY_RULE }))

/** The house rule a dossier is held to: its own choice, else the one in force. */
export const houseOf = <R extends Pick<HouseRule, 'id' | 'chosen'>>(
  rules: readonly R[],
  chosenByDossier: string | null,
): R | undefined => rules.find((r) => r.id === chosenByDossier) ?? rules.find((r) => r.chosen) ?? rules[0]

/** Rules of a house at the counter: its own for advice, and how often it opens filters. */
export const counterRule = (house: Pick<HouseRule, 'advice' | 'upkeep'> | undefined): AdviceRule => ({
  ...(house?.advice ?? ADVICE_RULE),
  ...(house && { opens: house.upkeep }),
})
