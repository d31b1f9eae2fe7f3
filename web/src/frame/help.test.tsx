import '../../tests/setup'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { noServer } from '../../tests/backend'
import { queryClient } from '../api/cache'
import { singleKeys } from '../settings/settings'
import { useBenchKeys } from '../trials/screens/useBenchKeys'
import { sentenceText } from '@ypsometer/core/figures/figure'
import { GLOSSARY } from '../figures/glossary'
import { Help } from './Help'

beforeEach(() => {
  noServer()
  // jsdom has no dialogs of its own.
  HTMLDialogElement.prototype.showModal = function () {
    this.open = true
  }
})
afterEach(() => {
  cleanup()
  singleKeys.set('on')
})

test('single keys can be turned off on this device; then none of them acts', () => {
  const presses: string[] = []
  const Bench = () => {
    useBenchKeys({ space: () => presses.push('space'), backspace: () => presses.push('backspace') })
    return null
  }
  render(
    <QueryClientProvider client={queryClient}>
      <Bench />
      <Help onClose={() => undefined} />
    </QueryClientProvider>,
  )
  const key = (k: string): void => void fireEvent.keyDown(document.body, { key: k })
  key(' ')
  fireEvent.click(screen.getByRole('checkbox', { name: 'Single-key shortcuts' }))
  key(' ')
  key('Backspace')
  expect(presses).toEqual(['space'])
  expect(localStorage.getItem('ypsometer.keys')).toBe('off')
})

test('each term stands once, with a meaning a newcomer can read in a breath', () => {
  const terms = GLOSSARY.map((t) => t.term)
  expect(new Set(terms).size).toBe(terms.length)
  for (const { term, meaning } of GLOSSARY)
    for (const sentence of sentenceText(meaning, 'metric').split(/(?<=\.) /))
      expect([term, sentence.split(' ').length <= 22]).toEqual([term, true])
})
