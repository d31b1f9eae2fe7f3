import { Activity, Component, Suspense, useEffect, useState, type ComponentType, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import { useStore } from '../settings/useStore'
import { whenIdle } from './idle'

/** Views that were given in, in their order, and how many of them have been drawn. */
const views: ComponentType[] = []
let drawn = 0
const listeners = new Set<() => void>()
const tell = (): void => listeners.forEach((told) => told())
const subscribe = (told: () => void): (() => void) => {
  listeners.add(told)
  return () => void listeners.delete(told)
}
const turn = (): number => drawn

/** Has a view drawn once before it is opened, by whoever shows a {@link Rehearsal}. */
export function warmView(view: ComponentType): void {
  if (views.includes(view)) return
  views.push(view)
  tell()
}

/** What fails while nobody looks is told to whoever opens it. */
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
  const now = useStore(subscribe, turn)
  const many = useStore(subscribe, () => views.length)
  const [outside] = useState(() => document.createElement('div'))
  const View = now < many ? views[now] : undefined
  useEffect(() => {
    if (!View) return undefined
    return whenIdle(() => {
      drawn = now + 1
      tell()
    }, LONGEST)
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
