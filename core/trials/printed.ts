import type { Figure } from '../figures'
import type { ClaimQuantity, ClaimRecord } from './records'

const CLAIM_LABELS: Readonly<
  Record<ClaimQuantity, { readonly label: string; readonly dimension: Figure['dimension'] }>
> = {
  'rated-flow': { label: 'Rated flow', dimension: 'flow' },
  'max-head': { label: 'Maximum head', dimension: 'head' },
  power: { label: 'Power on the label', dimension: 'power' },
  'tank-min': { label: 'Smallest tank claimed', dimension: 'volume' },
  'tank-max': { label: 'Largest tank claimed', dimension: 'volume' },
  'media-volume': { label: 'Media volume claimed', dimension: 'volume' },
  noise: { label: 'Noise on the label', dimension: 'sound' },
}

/** What a printed figure is called; null for what is no figure of the label. */
export const claimName = (quantity: string): string | null =>
  CLAIM_LABELS[quantity as ClaimQuantity]?.label ?? null

/** A printed claim as a number that says where it is printed, and under which words. */
export const printedFigure = (claim: ClaimRecord): Figure => ({
  id: ['printed', claim.quantity, claim.where, claim.qualifier, claim.mainsFrequency]
    .filter(Boolean)
    .join('-'),
  ...CLAIM_LABELS[claim.quantity],
  value: claim.value,
  provenance: 'printed',
  conditions: [
    claim.where ? `printed on the ${claim.where}` : 'place on the label not recorded',
    ...(claim.qualifier ? [`“${claim.qualifier}”`] : []),
    ...(claim.mainsFrequency ? [`for ${claim.mainsFrequency} Hz`] : []),
  ],
})
