import '../../tests/setup'
import { cleanup, render, screen } from '@testing-library/react'
import { Heading } from './Heading'

afterEach(cleanup)

test('a heading names the page by what it is of, the narrower first', () => {
  const view = render(<Heading>Ledger 700</Heading>)
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Ledger 700')
  expect(document.title).toBe('Ledger 700 · Ypsometer')
  view.rerender(<Heading part="Bench">Ledger 700</Heading>)
  expect(document.title).toBe('Bench · Ledger 700 · Ypsometer')
  view.rerender(<Heading part={undefined}>Shelf</Heading>)
  expect(document.title).toBe('Shelf · Ypsometer')
})

test('what has no name yet is a page of ours all the same', () => {
  render(<Heading dir="auto">{''}</Heading>)
  expect(document.title).toBe('Ypsometer')
})
