/** The mark: a graduated rod beside a column of water. */
export function Glyph() {
  return (
    <svg viewBox="0 0 20 24" width="18" height="22" aria-hidden="true">
      <path
        d="M4 2v20M4 4h5M4 8h3M4 12h5M4 16h3M4 20h5"
        stroke="currentColor"
        strokeWidth="1.6"
        fill="none"
      />
      <path d="M14 9v13" stroke="var(--color-primary)" strokeWidth="5" />
      <path d="M11.5 4v18.5h5V4" stroke="currentColor" strokeWidth="1.1" fill="none" />
    </svg>
  )
}
