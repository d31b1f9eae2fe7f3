import { History } from 'lucide-react'
import { Link } from 'react-router'

/** The way to who changed a row, or a model’s whole dossier, and when. */
export const HistoryLink = ({
  of,
}: {
  readonly of: { readonly model: string } | { readonly row: string }
}) => (
  <Link to={`/history?${new URLSearchParams(of)}`} className="btn btn-ghost btn-sm">
    <History size={15} aria-hidden="true" /> History
  </Link>
)
