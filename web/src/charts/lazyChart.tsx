import { lazy, startTransition, Suspense, useLayoutEffect, useRef, useState, type ComponentType, type RefObject } from 'react' // prettier-ignore
import { retryWhenBack } from '../api/retryWhenBack'
import { afterPaint, whenIdle } from '../frame/idle'
import { Loading } from '../frame/States'

type Made<P> = Promise<{ readonly default: ComponentType<P> }>

/** A part of a view whose code comes when it is first drawn; with `ahead` called before, it is there at once. */
export type Later<P> = ComponentType<P> & { readonly ahead: () => Promise<void> }

/**
 * Is it its turn? What is in the window comes once the page round it can be seen, without holding up what the reader
 * does meanwhile; what is below, when the page has nothing else to do.
 */
function useTurn(of: RefObject<Element | null>): boolean {
  const [turn, setTurn] = useState(false)
  useLayoutEffect(() => {
    const at = of.current?.getBoundingClientRect()
    const seen = at && at.top < window.innerHeight && at.bottom >= 0
    return (seen ? afterPaint : whenIdle)(() => startTransition(() => setTurn(true)))
  }, [of])
  return turn
}

/**
 * @param room The class of the room it takes, kept for it until it is there: what stands below is not moved away from
 *   under a finger.
 */
export function lazyChart<P extends object>(load: () => Made<P>, room: (props: P) => string): Later<P> {
  let there: ComponentType<P> | undefined
  const made = async (): Made<P> => {
    const module = await retryWhenBack(load)
    there = module.default
    return module
  }
  const Waited = lazy(made)
  const Shown = (props: P) => {
    // Which of the two it is does not change while it is shown.
    const [Part] = useState<ComponentType<P>>(() => there ?? (Waited as unknown as ComponentType<P>))
    const place = useRef<HTMLDivElement>(null)
    if (!useTurn(place)) return <div ref={place} className={room(props)} />
    return (
      <Suspense
        fallback={
          <div className={room(props)}>
            <Loading />
          </div>
        }
      >
        <Part {...props} />
      </Suspense>
    )
  }
  return Object.assign(Shown, { ahead: async () => void (await made()) })
}
