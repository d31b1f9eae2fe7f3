import '../../tests/setup'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render } from '@testing-library/react'
import { BackupNote } from './BackupNote'

afterEach(cleanup)
const HOUR = 3600 * 1000
const say = (backup: object | null): string | null => {
  const client = new QueryClient()
  client.setQueryData(['status'], { backup })
  const shown = render(
    <QueryClientProvider client={client}>
      <BackupNote />
    </QueryClientProvider>,
  )
  return shown.container.textContent
}
const made = (hours: number) => ({
  at: new Date(Date.now() - hours * HOUR).toISOString(),
  file: 'x.tar',
  bytes: 1,
})

test('an old backup is said with its age, a fresh one is not, nor is one nobody asked for', () => {
  expect(say(made(1))).toBe('')
  expect(say(made(71))).toBe('')
  expect(say(made(73))).toMatch(
    /Last backup: 3 days ago \([\d.,\s]+ Nov [\d.,\s]+, [\d.,\s]+:[\d.,\s]+\)\. The nightly backup failed\./,
  )
  expect(say(null)).toBe('')
})
