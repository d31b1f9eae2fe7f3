import { later } from './later'

/** Every chart that stands in a view, its code apart from the view’s. */
export const Curves = later(() => import('./Curves'))
export const CostChart = later(() => import('./CostChart'))
export const FlowLeftChart = later(() => import('./FlowLeftChart'))
export const HeadFlow = later(() => import('./HeadFlow'))
export const SeriesChart = later(() => import('./SeriesChart'))
