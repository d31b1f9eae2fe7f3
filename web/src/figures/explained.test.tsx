import '../../tests/setup'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { units } from '../settings/settings'
import { Explained, termIn } from './Explained'
import { GLOSSARY } from './glossary'

afterEach(() => {
  cleanup()
  units.set('metric')
})

test.each([
  ['Head loss in the media', 'Head loss'],
  ['Head and flow', 'Head'],
  ['The forehead of a headstand', undefined],
  ['Bypasses mechanical filtration', 'Mechanical media'],
  ['Check-ups on Museum lobby', 'Check-up'],
  ['Supports (normal stocking)', 'Supports'],
  ['unsupported', undefined],
  ['', undefined],
])('in “%s” the term is %s, by whole words, the longest first', (text, term) =>
  expect(termIn(text)?.entry.term).toBe(term),
)

test('pressed, a term says what it means in the reader’s units; Escape goes back to it', () => {
  units.set('us')
  render(<Explained>Head and flow</Explained>)
  const term = screen.getByRole('button', { name: 'Head' })
  fireEvent.click(term)
  // 1.5 m ÷ 0.3048 = 4.92 ft.
  expect(screen.getByRole('dialog', { name: 'Meaning of head' }).textContent).toMatch(/4\.92\sft of head/)
  fireEvent.keyDown(screen.getByRole('dialog'), { key: 'Escape' })
  expect(screen.queryByRole('dialog')).toBeNull()
  expect(document.activeElement).toBe(term)
})

/** Labels that reach the page through a list, each with the file that explains them. */
const LISTED: readonly (readonly [label: string, file: string])[] = [
  ['Rated flow', 'stations/claims.tsx'],
  ['Maximum head', 'stations/claims.tsx'],
  ['Bypasses mechanical filtration', 'views/fill/Results.tsx'],
  ['Reaches the bio media', 'views/fill/Results.tsx'],
  ['Cycled from', 'views/changeover/ChangeOver.tsx'],
]

test('each term of the glossary is explained where it is met', () => {
  const root = join(__dirname, '..')
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (f) => f.endsWith('.tsx') && !f.includes('.test.'),
  )
  const sources = new Map(files.map((f) => [f, readFileSync(join(root, f), 'utf8')]))
  const literal = [...sources.values()].flatMap((s) =>
    [...s.matchAll(/<Explained>([^<{]+)<\/Explained>/g)].map((m) => m[1] ?? ''),
  )
  const listed = LISTED.filter(([, file]) => /<Explained>\s*\{/.test(sources.get(file) ?? '')).map(([l]) => l)
  const met = new Set([...literal, ...listed].map((text) => termIn(text)?.entry.term))
  expect(GLOSSARY.map((t) => t.term).filter((t) => !met.has(t))).toEqual([])
})
