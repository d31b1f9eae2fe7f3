import { useLayoutEffect } from 'react'

interface Props {
  /** Part that is shown, where a page has parts: a station of a dossier, a trial at the sink. */
  readonly part?: string | undefined
  readonly className?: string
  readonly dir?: 'auto'
  readonly children: string
}

/** The heading of a view. It names the page as well, in tabs, bookmarks and history (WCAG 2.2, 2.4.2 Page Titled). */
export function Heading({ part, children, ...more }: Props) {
  const name = [part, children, 'Ypsometer'].filter(Boolean).join(' · ')
  useLayoutEffect(() => void (document.title = name), [name])
  return <h1 {...more}>{children}</h1>
}
