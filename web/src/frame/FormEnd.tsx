interface Props {
  /** Objection to the form as a whole. */
  readonly error: string | undefined
  readonly busy: boolean
  readonly small?: boolean
  readonly children: React.ReactNode
}

/** The end of a form: what is said against the whole of it, and the button that sends it. */
export const FormEnd = ({ error, busy, small, children }: Props) => (
  <>
    {error && (
      <p role="alert" className="text-error">
        {error}
      </p>
    )}
    <button type="submit" className={`btn btn-primary ${small ? 'btn-sm' : ''}`} disabled={busy}>
      {children}
    </button>
  </>
)
