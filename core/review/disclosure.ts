import { upperFirst } from '../figures/figure'
/** How a unit came: what a reader has to know, whatever the length. */
export const OBTAINED = ['bought', 'loaned', 'given', 'second-hand'] as const
export type Obtained = (typeof OBTAINED)[number]

/** Questions a reader may ask of whoever wrote it. */
export const DISCLOSED = ['paid', 'signed', 'affiliate', 'free', 'representative', 'previewed'] as const
export type Disclosed = (typeof DISCLOSED)[number]

/** Yes, no, or null: it was not recorded. */
export type Disclosure = Readonly<Record<Disclosed, boolean | null>>

/** The question, and what yes and no are said as. */
export const DISCLOSURE_WORDS: Readonly<
  Record<Disclosed, { readonly asks: string; readonly yes: string; readonly no: string }>
> = {
  paid: {
    asks: 'Were you paid for this review?',
    yes: 'paid for by somebody with an interest',
    no: 'nobody paid for it',
  },
  signed: {
    asks: 'Is there a contract with the maker or a seller?',
    yes: 'signed with the maker or a seller',
    no: 'no contract with the maker or a seller',
  },
  affiliate: {
    asks: 'Do links or discount codes earn anything?',
    yes: 'links or discount codes earn something',
    no: 'no link or code earns anything',
  },
  free: { asks: 'Did you get anything free?', yes: 'something came free', no: 'nothing came free' },
  representative: {
    asks: 'Was the maker’s representative a source?',
    yes: 'the maker’s representative was a source',
    no: 'no representative was a source',
  },
  previewed: {
    asks: 'Did the maker or seller see it before publication?',
    yes: 'somebody concerned saw it first',
    no: 'nobody concerned saw it first',
  },
}

const OBTAINED_WORDS: Readonly<Record<Obtained, string>> = {
  bought: 'The unit was bought',
  loaned: 'The unit was loaned',
  given: 'The unit was given',
  'second-hand': 'The unit was bought second-hand',
}

/** Lines that stand on a review of any length. */
export interface Disclosing {
  /** How the unit came; null: no unit is on record. */
  readonly obtained: Obtained | null
  readonly disclosure: Disclosure
}

/** Nothing was recorded. */
export const NOT_RECORDED: Disclosure = {
  paid: null,
  signed: null,
  affiliate: null,
  free: null,
  representative: null,
  previewed: null,
}

/** What a reader is not told yet: how the unit came, and every question without an answer. */
export const undisclosed = ({ obtained, disclosure }: Disclosing): readonly (Disclosed | 'obtained')[] => [
  ...(obtained ? [] : (['obtained'] as const)),
  ...DISCLOSED.filter((d) => disclosure[d] === null),
]

/** The disclosure in short sentences; what was not asked is said to be not recorded, never left out. */
export function disclosureWords({ obtained, disclosure }: Disclosing): string {
  const said = DISCLOSED.flatMap((d) => {
    const answer = disclosure[d]
    return answer === null ? [] : [answer ? DISCLOSURE_WORDS[d].yes : DISCLOSURE_WORDS[d].no]
  })
  const open = DISCLOSED.filter((d) => disclosure[d] === null)
  const how = obtained ? OBTAINED_WORDS[obtained] : 'How we got the unit is not disclosed yet'
  const first = [how, ...said.map(upperFirst)].join('. ')
  if (!open.length) return `${first}.`
  const rest =
    open.length === DISCLOSED.length
      ? 'payment, contract, gifts, preview'
      : open.map((d) => NOT_WORDS[d]).join(', ')
  return `${first}. Not disclosed yet: ${rest}.`
}

const NOT_WORDS: Readonly<Record<Disclosed, string>> = {
  paid: 'payment',
  signed: 'contract',
  affiliate: 'affiliate links',
  free: 'gifts',
  representative: 'help from a representative',
  previewed: 'preview',
}

/** Something that a reader will want to weigh: any yes, or a unit that was not bought. */
export const isBeholden = ({ obtained, disclosure }: Disclosing): boolean =>
  obtained === 'given' || obtained === 'loaned' || DISCLOSED.some((d) => disclosure[d] === true)
