import type { LitreName } from '@ypsometer/core/volumes/interior'

const ink = 'var(--color-base-content)'

/**
 * Textures that tell litres apart in black and white: cells, rings, grains, dots, crosses, hatching. `id` keeps two
 * drawings apart.
 */
export function Patterns({ id }: { readonly id: string }) {
  return (
    <defs>
      <pattern id={`${id}-mechanical`} width="9" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 4l2.2-3.5h4.6L9 4 6.8 7.5H2.2z" fill="none" stroke={ink} strokeWidth="0.8" />
      </pattern>
      <pattern id={`${id}-biological`} width="13" height="12" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="2.7" fill="none" stroke={ink} strokeWidth="1" />
        <circle cx="10.5" cy="9" r="2.4" fill="none" stroke={ink} strokeWidth="1" />
      </pattern>
      <pattern id={`${id}-chemical`} width="7" height="7" patternUnits="userSpaceOnUse">
        <path d="M1 1.5l2-.8 1 1.6-1.5 1.2zM4.5 4.5l1.6-.6.7 1.5-1.5.9z" fill={ink} />
      </pattern>
      <pattern id={`${id}-void`} width="14" height="14" patternUnits="userSpaceOnUse">
        <circle cx="3" cy="3" r="0.9" fill={ink} />
        <circle cx="10" cy="10" r="0.9" fill={ink} />
      </pattern>
      <pattern id={`${id}-channel`} width="12" height="10" patternUnits="userSpaceOnUse">
        <path d="M0 5q3-3 6 0t6 0" fill="none" stroke="var(--color-primary)" strokeWidth="0.8" />
      </pattern>
      <pattern id={`${id}-machinery`} width="8" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 0l8 8M8 0L0 8" stroke={ink} strokeWidth="0.5" strokeOpacity="0.7" />
      </pattern>
      <pattern
        id={`${id}-wasted`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0v7" stroke="var(--color-error)" strokeWidth="2.6" />
      </pattern>
      <pattern
        id={`${id}-typical`}
        width="9"
        height="9"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <path d="M0 0v9" stroke="var(--color-secondary)" strokeWidth="1.2" strokeOpacity="0.7" />
      </pattern>
    </defs>
  )
}

export const LITRE_WORDS: Readonly<Record<LitreName, string>> = {
  biological: 'bio media',
  mechanical: 'mechanical media',
  chemical: 'chemical media',
  void: 'settling space',
  channel: 'flow channel',
  machinery: 'pump and motor',
  wasted: 'unused space',
}

/** A small swatch of one texture, for legends and sheets. */
export function Swatch({ id, name }: { readonly id: string; readonly name: LitreName }) {
  return (
    <svg width="22" height="16" aria-hidden="true" className="inline-block shrink-0 align-[-2px]">
      <Patterns id={`${id}-${name}`} />
      <rect
        x="0.5"
        y="0.5"
        width="21"
        height="15"
        fill={`url(#${id}-${name}-${name})`}
        stroke={ink}
        strokeWidth="0.8"
      />
    </svg>
  )
}
