import '../../tests/setup'
import { fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { found, ListWithDetail, type ListLine } from './ListWithDetail'

const lines = (n: number): ListLine[] =>
  Array.from({ length: n }, (_, i) => ({ id: `t${i}`, name: `Row ${i}`, note: i % 2 ? 'Back room' : 'Shop' }))
const show = (n: number, open?: string) =>
  render(
    <MemoryRouter>
      <ListWithDetail label="Tanks" path="/tanks" lines={lines(n)} open={open}>
        <p>the open one</p>
      </ListWithDetail>
    </MemoryRouter>,
  )
const names = (): (string | null)[] => screen.getAllByRole('link').map((l) => l.getAttribute('href'))

test('a short list is shown as it is; a long one is searched by words of its name and note, in any order', () => {
  const { unmount } = show(14)
  expect(names()).toHaveLength(14)
  expect(screen.queryByRole('searchbox')).toBeNull()
  unmount()
  show(2000)
  fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'room 1999' } })
  expect(names()).toEqual(['/tanks/t1999'])
  fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'shop 1999' } })
  expect(screen.getByText('None has that in its name.')).toBeTruthy()
})

test('of two thousand a hundred are drawn, how many more there are is said, and the open one is among them', () => {
  show(2000, 't1500')
  expect(names()).toHaveLength(101)
  expect(names()[0]).toBe('/tanks/t1500')
  expect(screen.getByText(/^1900 more/)).toBeTruthy()
  expect(screen.getByText('the open one')).toBeTruthy()
})

test('nothing typed finds all of them', () => {
  expect(found(lines(3), '  ')).toHaveLength(3)
})
