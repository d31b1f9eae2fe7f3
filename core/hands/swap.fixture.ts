import type { Keeping } from '../biology'
import { KEPT } from '../biology/keeping.fixture'
import { filmsOfMass } from '../path/films'
import type { ChangeSubject } from './changeWords'

const DAY = 86400
export const keeping: Keeping = {
  ...KEPT,
  surface: 0.5,
  stirred: 0.1,
  feed: 4e-3 / DAY,
  protein: 0.45,
  oxygenOfFeed: 0.3,
  pH: 7.5,
  alkalinity: 0.3,
  tapNitrate: 0,
}
export const films = filmsOfMass(2, 500 / 3.6e6, 0.9)
export const subject = (way: ChangeSubject['way'], more: Partial<ChangeSubject> = {}): ChangeSubject => ({
  way,
  weeks: 4,
  share: 0.3,
  keeping,
  old: films,
  stay: [],
  next: films,
  ...more,
})
export const BEGAN = '2026-11-12'
