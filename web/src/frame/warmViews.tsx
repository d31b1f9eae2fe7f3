import { Activity, Component, Suspense, useEffect, useState, type ComponentType, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import { makeStore } from '../settings/store'
import { whenIdle } from './idle'

/** Views that were given in, in their order, and how many of them have been drawn. */
const turns = makeStore<{ readonly views: readonly ComponentType[]; readonly drawn: number }>({
  views: [],
  drawn: 0,
})

/** Has a view drawn once before it is opened, by whoever shows a {@link Rehearsal}. */
export function warmView(view: ComponentType): void {
  const { views, drawn } = turns.get()
  if (!views.includes(view)) turns.set({ views: [...views, view], drawn })
}

/** A failure while nobody looks is told to whoever opens the view. */
class Aside extends Component<{ readonly children: ReactNode }> {
  static getDerivedStateFromError = (): object => ({ failed: true })
  override state = { failed: false }
  override render(): ReactNode {
    return this.state.failed ? null : this.props.children
  }
}

/** Drawing one takes no longer (ms), however busy the page is; then it is the next one’s turn. */
const LONGEST = 5000

/**
 * Draws views once, one after the other, where nobody sees them and nothing of them is done: outside of the page, with
 * none of their effects, whenever the page has nothing else to do. Their code is compiled then, which is most of what
 * a first visit takes longer than the next.
 */
export function Rehearsal() {
  const { views, drawn: now } = turns.use()
  const [outside] = useState(() => document.createElement('div'))
  const View = views[now]
  useEffect(() => {
    if (!View) return undefined
    return whenIdle(() => turns.set({ ...turns.get(), drawn: now + 1 }), LONGEST)
  }, [View, now])
  if (!View) return null
  return createPortal(
    <Activity key={now} mode="hidden">
      <Aside>
        <Suspense>
          <View />
        </Suspense>
      </Aside>
    </Activity>,
    outside,
  )
}
