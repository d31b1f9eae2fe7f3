import '../../tests/setup'
import { decimal, theme, units } from './settings'

const cookies = (): string[] => document.cookie.split('; ').filter(Boolean).sort()

test('who reads a review by its link gets no cookie; elsewhere the server is told what its pages are drawn by', () => {
  history.replaceState(null, '', '/s/secret')
  units.set('us')
  decimal.set(',')
  expect(cookies()).toEqual([])
  history.replaceState(null, '', '/models/a/verdict')
  units.set('imperial')
  decimal.set(',')
  theme.set('fishroom')
  expect(cookies()).toEqual(['ypsometer.decimal=,', 'ypsometer.theme=fishroom', 'ypsometer.units=imperial'])
  expect(document.documentElement.dataset.theme).toBe('fishroom')
})
