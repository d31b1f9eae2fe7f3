import { TriangleAlert } from 'lucide-react'

/** A caution where hands go in: a mark and its words. */
export const CautionNote = ({ children }: { readonly children: React.ReactNode }) => (
  <p className="border-warning mt-2 flex gap-2 border-l-4 pl-3">
    <TriangleAlert size={19} className="text-warning mt-1 shrink-0" aria-hidden="true" />
    <span>{children}</span>
  </p>
)
