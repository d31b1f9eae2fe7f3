import '../../tests/setup'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { Sortable, useSortableRow } from './Sortable'

const ROWS = ['Coarse foam', 'Fine pad', 'Rings'].map((name, i) => ({ id: `id-${i}`, name }))
const moves: [string, string][] = []

function Row({ id, name }: { readonly id: string; readonly name: string }) {
  const { row, held, grip } = useSortableRow(id, `Move ${name}`)
  return (
    <li {...row} className={held}>
      {grip} {name}
    </li>
  )
}
const show = (): void =>
  void render(
    <Sortable items={ROWS} onMove={(moved, over) => moves.push([moved, over])}>
      <ul>
        {ROWS.map((r) => (
          <Row key={r.id} {...r} />
        ))}
      </ul>
    </Sortable>,
  )
/** Rows of 20 px, one under the other: there is no layout here. */
beforeEach(() => {
  moves.length = 0
  jest.spyOn(Element.prototype, 'getBoundingClientRect').mockImplementation(function (this: Element) {
    const i = [...document.querySelectorAll('li')].findIndex((li) => li === this || li.contains(this))
    return new DOMRect(0, 20 * Math.max(i, 0), 100, 20)
  })
})
afterEach(() => {
  cleanup()
  jest.restoreAllMocks()
})
const key = async (code: string): Promise<void> => {
  await act(async () => {
    fireEvent.keyDown(document.activeElement ?? document.body, { code })
    await new Promise((done) => setTimeout(done, 30))
  })
}
const heard = (words: RegExp): Promise<void> =>
  waitFor(() => expect(document.querySelector('[id^="DndLiveRegion"]')?.textContent).toMatch(words))

test('by keyboard a row is picked up, moved and let go, each said by its name and place', async () => {
  show()
  const grip = screen.getByRole('button', { name: 'Move Fine pad' })
  expect(document.getElementById(grip.getAttribute('aria-describedby') ?? '')?.textContent).toMatch(
    /arrow keys/,
  )
  grip.focus()
  await key('Space')
  await heard(/^Fine pad (picked up, )?at place 2 of 3\.$/)
  await key('ArrowUp')
  await heard(/^Fine pad at place 1 of 3\.$/)
  await key('Space')
  await heard(/^Fine pad let go at place 1 of 3\.$/)
  expect(moves).toEqual([['id-1', 'id-0']])
})

test('escape leaves it where it was, and nothing is moved', async () => {
  show()
  screen.getByRole('button', { name: 'Move Rings' }).focus()
  await key('Space')
  await key('ArrowUp')
  await key('Escape')
  await heard(/^Rings left where it was\.$/)
  expect(moves).toEqual([])
})

test('picked up and let go at once, it has not moved', async () => {
  show()
  screen.getByRole('button', { name: 'Move Coarse foam' }).focus()
  await key('Space')
  await key('Space')
  await heard(/^Coarse foam let go at place 1 of 3\.$/)
  expect(moves).toEqual([])
})
