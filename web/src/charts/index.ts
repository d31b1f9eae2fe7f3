import { lazyChart } from './lazyChart'

/** Every chart that stands in a view, its code apart from the view’s; with the room each takes. */
export const Curves = lazyChart(
  () => import('./Curves'),
  () => 'min-h-96',
)
export const CostChart = lazyChart(
  () => import('./CostChart'),
  () => 'min-h-80',
)
export const FlowLeftChart = lazyChart(
  () => import('./FlowLeftChart'),
  () => 'min-h-82',
)
export const HeadFlow = lazyChart(
  () => import('./HeadFlow'),
  () => 'min-h-112 max-sm:min-h-228',
)
export const SeriesChart = lazyChart(
  () => import('./SeriesChart'),
  ({ height = 260 }) => (height < 200 ? 'min-h-48' : height < 230 ? 'min-h-68' : 'min-h-76'),
)
