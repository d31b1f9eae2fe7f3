import type { Station } from '@ypsometer/core/judging/stations'
import type { ComponentType } from 'react'

/** The view of a station, with its code: the file of its name. */
export const stationView = async (station: Station): Promise<ComponentType> =>
  ((await import(`./stations/${station}.tsx`)) as { readonly default: ComponentType }).default
