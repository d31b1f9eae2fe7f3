import type { Gap } from '@ypsometer/core/judging/gaps'
import { useEffect } from 'react'
import { useLocation } from 'react-router'

/** Element that holds what closes a gap, by its id. */
const PLACES: Readonly<Record<Gap, string>> = {
  'rated-flow': 'claim-rated-flow',
  'tank-max': 'claim-tank-max',
  'max-head': 'claim-max-head',
  'media-mass': 'media-mass',
  fill: 'media-setup',
  hookup: 'plumbing',
  'empty-flow': 'standard-tests',
  'installed-flow': 'standard-tests',
  'head-series': 'standard-tests',
}

/** Address of the place where a gap of the record is closed, within its dossier. */
export const toGap = (station: string, gap: Gap | null): string =>
  gap ? `${station}#${PLACES[gap]}` : station

const FIRST = 'input:not([disabled]), select:not([disabled]), textarea, button:not([disabled]), a[href]'
/** A station that is not there after so long has no such place (ms). */
const PATIENCE = 5000

/** Goes to the place that the address names, once it is there, and puts the cursor into its first field. */
export function useArrival(): void {
  const { hash, key } = useLocation()
  useEffect(() => {
    if (!hash) return undefined
    const began = Date.now()
    let timer: ReturnType<typeof setTimeout> | undefined
    const look = (): void => {
      const place = document.getElementById(hash.slice(1))
      if (place) {
        place.scrollIntoView({ block: 'center' })
        const first = place.matches(FIRST) ? place : place.querySelector(FIRST)
        if (first instanceof HTMLElement) first.focus({ preventScroll: true })
      } else if (Date.now() - began < PATIENCE) timer = setTimeout(look, 50)
    }
    look()
    return () => clearTimeout(timer)
  }, [hash, key])
}
