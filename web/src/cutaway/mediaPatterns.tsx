import type { MediumForm } from '@ypsometer/core/media/medium'

const ink = 'var(--color-base-content)'

/** Texture of a foam or a floss, by how fine it is. */
export type Texture = MediumForm | 'foam-medium' | 'foam-fine'

/** Textures of media drawn for their form: they read in black and white. `id` keeps two drawings apart. */
export function MediaPatterns({ id }: { readonly id: string }) {
  const line = { fill: 'none', stroke: ink } as const
  return (
    <defs>
      <pattern id={`${id}-foam`} width="14" height="12" patternUnits="userSpaceOnUse">
        <path d="M0 6L3.5 0.7h7L14 6l-3.5 5.3h-7z" {...line} strokeWidth="1" />
      </pattern>
      <pattern id={`${id}-foam-medium`} width="10" height="8.6" patternUnits="userSpaceOnUse">
        <path d="M0 4.3L2.5 0.5h5L10 4.3 7.5 8.1h-5z" {...line} strokeWidth="0.9" />
      </pattern>
      <pattern id={`${id}-foam-fine`} width="7" height="6" patternUnits="userSpaceOnUse">
        <path d="M0 3L1.8 0.4h3.4L7 3 5.2 5.6H1.8z" {...line} strokeWidth="0.8" />
      </pattern>
      <pattern
        id={`${id}-pad`}
        width="3.2"
        height="3.2"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(20)"
      >
        <path d="M0 1.6h3.2" {...line} strokeWidth="1" />
      </pattern>
      <pattern id={`${id}-floss`} width="9" height="9" patternUnits="userSpaceOnUse">
        <path d="M1 2q2-2 4 0M5 6q2 2 4 0M0 7q1.5-1.5 3 0M6 1q1 1 2 0" {...line} strokeWidth="0.8" />
      </pattern>
      <pattern id={`${id}-rings`} width="15" height="14" patternUnits="userSpaceOnUse">
        <circle cx="4.5" cy="4.5" r="3.6" {...line} strokeWidth="1" />
        <circle cx="4.5" cy="4.5" r="1.4" {...line} strokeWidth="0.8" />
        <path d="M9 8.5h5v3.6H9zM9 9.7h5" {...line} strokeWidth="0.9" />
      </pattern>
      <pattern id={`${id}-sintered`} width="13" height="12" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="3" {...line} strokeWidth="1.1" />
        <circle cx="10.5" cy="9" r="2.6" {...line} strokeWidth="1.1" />
        <circle cx="4" cy="4" r="0.8" fill={ink} />
        <circle cx="10.5" cy="9" r="0.8" fill={ink} />
      </pattern>
      <pattern id={`${id}-spheres`} width="13" height="12" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="3.4" {...line} strokeWidth="1" />
        <circle cx="10.3" cy="9.4" r="3" {...line} strokeWidth="1" />
      </pattern>
      <pattern id={`${id}-gravel`} width="13" height="11" patternUnits="userSpaceOnUse">
        <path
          d="M1 3l2.5-2 3 1 .6 2.6-2.8 1.6-3-.8zM7.5 8l2-1.6 2.8.6.4 2-2.4 1.4-2.4-.6z"
          {...line}
          strokeWidth="1"
        />
      </pattern>
      <pattern id={`${id}-coral`} width="11" height="11" patternUnits="userSpaceOnUse">
        <path d="M2 9V5L1 3M2 5l2-2M8 10V7l-1.6-2M8 7l2-2" {...line} strokeWidth="1.1" />
      </pattern>
      <pattern id={`${id}-carbon`} width="7" height="7" patternUnits="userSpaceOnUse">
        <path d="M0.8 1.6l2.2-1 1.2 1.8-1.8 1.4zM4.2 4.8l1.8-.8.9 1.7-1.8 1.2z" fill={ink} />
      </pattern>
      <pattern id={`${id}-resin`} width="5" height="5" patternUnits="userSpaceOnUse">
        <circle cx="1.4" cy="1.4" r="0.95" fill={ink} />
        <circle cx="3.9" cy="3.9" r="0.95" fill={ink} />
      </pattern>
      <pattern id={`${id}-moving`} width="16" height="15" patternUnits="userSpaceOnUse">
        <path d="M2 4.5a3 3 0 1 0 6 0a3 3 0 1 0-6 0M5 1.5v6M2 4.5h6" {...line} strokeWidth="0.9" />
        <path d="M10.5 11a2 2 0 1 0 4 0a2 2 0 1 0-4 0M12.5 9v4" {...line} strokeWidth="0.9" />
      </pattern>
      <pattern id={`${id}-cartridge`} width="6" height="6" patternUnits="userSpaceOnUse">
        <path d="M0 1h6M0 3h6M0 5h6" {...line} strokeWidth="0.7" />
        <circle cx="3" cy="2" r="0.8" fill={ink} />
      </pattern>
      <pattern id={`${id}-contactor`} width="12" height="12" patternUnits="userSpaceOnUse">
        <path d="M6 0v12M0 6h12M1.8 1.8l8.4 8.4M10.2 1.8l-8.4 8.4" {...line} strokeWidth="0.7" />
      </pattern>
    </defs>
  )
}

/** The texture of a medium: its form, and for foam its fineness. */
export function textureOf(m: { readonly form: MediumForm; readonly poresPerInch: number | null }): Texture {
  const pores = m.poresPerInch ?? 0
  if (m.form !== 'foam' || pores < 15) return m.form
  return pores < 25 ? 'foam-medium' : 'foam-fine'
}

/** A small swatch of a medium’s texture. */
export function MediumSwatch({
  id,
  medium,
}: {
  readonly id: string
  readonly medium: { readonly form: MediumForm; readonly poresPerInch: number | null }
}) {
  const key = `sw-${id.replace(/[^\w-]/g, '')}`
  return (
    <svg width="26" height="18" aria-hidden="true" className="inline-block shrink-0 align-[-4px]">
      <MediaPatterns id={key} />
      <rect
        x="0.5"
        y="0.5"
        width="25"
        height="17"
        fill={`url(#${key}-${textureOf(medium)})`}
        stroke={ink}
        strokeWidth="0.8"
      />
    </svg>
  )
}
