/** @jest-environment node */
import { modelRecord, type Opened } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { STATIONS } from '@ypsometer/core/judging/stations'
import { demoDossier, demoMedia, demoRules, demoStock } from '../tests/dossier'
import prerender from './prerender'

// There is no browser here: that is the point.
const dossier = demoDossier('Ledger 700')
const opened = {
  dossier,
  media: { items: demoMedia() },
  'house-rules': { items: demoRules() },
  'stock-classes': { items: demoStock() },
  'label-bias': { n: 0 },
  assessment: assess(modelRecord(dossier, demoMedia())),
} as unknown as Opened
const drawn = (
  station: string,
  chosen: { units?: string; decimal?: string } = {},
  of = opened,
): Promise<string> =>
  prerender({
    address: `/models/${of.dossier.model.id}/${station}`,
    me: JSON.stringify({
      person: { id: 'e', name: 'Edda <b>', role: 'editor' },
      by: 'session',
      unowned: false,
    }),
    opened: JSON.stringify(of),
    ...chosen,
  })
const words = (html: string): string => html.replace(/<[^>]*>/g, ' ').replace(/\s+/g, ' ')

test.each(STATIONS)('%s stands in its frame, with nothing that the page may not carry', async (station) => {
  const html = await drawn(station)
  expect(html).toContain('<h1>Ledger 700</h1>')
  expect(html).toMatch(new RegExp(`aria-current="page"[^>]*href="/models/${dossier.model.id}/${station}"`))
  expect(html).toContain('Edda &lt;b&gt;')
  // The policy of the server lets no style and no script stand in a page.
  expect(html).not.toMatch(/<script|<style|\sstyle=|\son\w+=/)
})

test('what the label printed stands there, in the units and with the sign of whoever looks', async () => {
  expect(words(await drawn('verdict', { units: 'metric' }))).toContain('the rated 700 L/h')
  // 700 L/h / 3.785411784 L (US gallon, NIST SP 811 appendix B) = 184.9 gal/h
  expect(words(await drawn('verdict', { units: 'us' }))).toContain('the rated 185 US gal/h')
  expect(words(await drawn('verdict', { decimal: ',' }))).toMatch(/\d,\d/)
})

test('what waits for a worker says so, and takes no number for it', async () => {
  const without = words(await drawn('verdict', {}, { ...opened, assessment: null }))
  expect(without).not.toMatch(/\d L\b/)
  expect(await drawn('verdict', {}, { ...opened, assessment: null })).toContain('data-loading=""')
})

test('asked for nothing, or where there is no station, there is nothing', async () => {
  expect(await prerender(null)).toBe('')
  jest.spyOn(console, 'warn').mockImplementation(() => undefined)
  expect(await drawn('nowhere')).toBe('')
})

test('nothing of one reader is left for the next', async () => {
  await drawn('verdict', { units: 'us', decimal: ',' })
  const other = { ...opened, dossier: demoDossier('Torrent 1400') } as Opened
  const html = words(await drawn('claims', {}, { ...other, assessment: null }))
  expect(html).not.toMatch(/Ledger|gal\/h/)
})
