import type { Provenance } from '@ypsometer/core/figures/figure'

export const PROVENANCE_WORDS: Readonly<Record<Provenance, string>> = {
  printed: 'label',
  measured: 'measured',
  computed: 'calculated',
  rule: 'rule of thumb',
}

export const PROVENANCE_MEANING: Readonly<Record<Provenance, string>> = {
  printed: 'Copied from the label, box or manual, not checked.',
  measured: 'Measured here, with its uncertainty and conditions.',
  computed: 'From other numbers, by the formula shown.',
  rule: 'Common practice, not measured and not published.',
}

/** The mark of where a number came from: a label, a plumb weight, an equals sign, or a tilde. */
export function Mark({ of }: { readonly of: Provenance }) {
  const common = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.5 } as const
  return (
    <svg
      viewBox="0 0 14 14"
      width="12"
      height="12"
      aria-hidden="true"
      className="inline-block shrink-0 align-[-1px]"
    >
      {of === 'printed' && <path {...common} d="M1.5 3h8l3 4-3 4h-8zM4 7h3.5" />}
      {of === 'measured' && (
        <>
          <path {...common} d="M7 0v5" />
          <path d="M3 5h8L7 13.5z" fill="currentColor" />
        </>
      )}
      {of === 'computed' && <path {...common} strokeWidth={1.8} d="M2 5h10M2 9h10" />}
      {of === 'rule' && <path {...common} strokeWidth={1.8} d="M1.5 8.5c2-4 4-3 5.5-1.5s3.5 2.5 5.5-1.5" />}
    </svg>
  )
}

/** Mark and word together, small. */
export function ProvenanceTag({ of }: { readonly of: Provenance }) {
  return (
    <span className="muted inline-flex items-baseline gap-1 text-[0.8rem] whitespace-nowrap">
      <Mark of={of} />
      {PROVENANCE_WORDS[of]}
    </span>
  )
}
