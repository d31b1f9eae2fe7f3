import '../../tests/setup'
import { cleanup, fireEvent, screen, within } from '@testing-library/react'
import { demoDossier, demoTanks, showStation } from '../../tests/dossier'
import type { Dossier } from '@ypsometer/contract'

jest.mock('../workers/livingRemote', () => jest.requireActual<object>('../../tests/livingRemote'))
jest.mock('../workers/useAssessment', () => ({ useAssessment: () => ({ assessment: null, failure: null }) }))

import { emptyOutbox, haveLists, noServer, writes, type Written } from '../../tests/backend'
import { units } from '../settings/settings'
import { Findings } from './bench/Findings'
import { Hookups } from './bench/Hookups'
import { SensitivityList } from './bench/SensitivityList'
import { ThreeAnswers } from './bench/ThreeAnswers'
import { TrialList } from './bench/TrialList'
import Claims from '../stations/claims'
import Inside from '../stations/inside'
import Strip from '../stations/strip'
import TankRange from '../stations/tanks'
import VerdictView from '../stations/verdict'

beforeEach(() => {
  noServer()
  emptyOutbox()
  haveLists({ tanks: demoTanks() })
  localStorage.clear()
  units.set('metric')
})
afterEach(cleanup)

const text = (): string => document.body.textContent ?? ''
const without = (d: Dossier, ...names: (keyof Dossier)[]): Dossier => ({
  ...d,
  ...Object.fromEntries(names.map((n) => [n, []])),
})

describe('Claims', () => {
  test('shows each printed figure as it was typed, and asks before it takes an odd one', () => {
    showStation(<Claims />, demoDossier('Torrent 1400'))
    expect(screen.getByLabelText<HTMLInputElement>('Rated flow').value).toBe('1400 L/h')
    expect(screen.getByLabelText<HTMLInputElement>('Price').value).toBe('119.00 EUR')
    fireEvent.change(screen.getByLabelText('Rated flow'), { target: { value: '90000' } })
    fireEvent.blur(screen.getByLabelText('Rated flow'))
    expect(text()).toContain('Check the unit: 90')
    expect(writes).toEqual([])
  })
  test('a figure not copied yet becomes a claim when it is typed; nonsense does not', () => {
    const d = demoDossier('Bellows S2')
    showStation(<Claims />, d)
    const noise = screen.getByLabelText('Noise')
    fireEvent.change(noise, { target: { value: 'quiet' } })
    fireEvent.blur(noise)
    expect(text()).toContain('“quiet” is not a number')
    fireEvent.change(noise, { target: { value: '33 dB' } })
    fireEvent.keyDown(noise, { key: 'Enter' })
    expect(writes).toEqual([
      [
        'create',
        'claims',
        { modelId: d.model.id, quantity: 'noise', value: 33, printedOn: 'box', typed: { value: '33 dB' } },
      ],
    ])
  })
  test('a price is changed in minor units, and removing a figure says which', () => {
    showStation(<Claims />, demoDossier('Torrent 1400'))
    fireEvent.change(screen.getByLabelText('Price'), { target: { value: '99,5' } })
    fireEvent.blur(screen.getByLabelText('Price'))
    fireEvent.click(screen.getByRole('button', { name: 'Remove noise' }))
    expect(writes[0]).toEqual([
      'change',
      'claims',
      { amountMinor: 9950, currency: 'EUR', pricedOn: expect.stringMatching(/^\d{4}-\d\d-\d\d$/) },
    ])
    expect(writes[1]?.[0]).toBe('delete')
  })
})

describe('Bench', () => {
  test('three answers side by side, each saying where it comes from', () => {
    const { assessment } = showStation(<ThreeAnswers />, demoDossier('Torrent 1400'))
    // 1400 L/h less 40 to 50 %: 770 ± 70.
    expect(text()).toMatch(/770 ± 70/)
    expect(text()).toContain('rule of thumb')
    expect(text()).toContain(`${Math.round((assessment.answers.measured?.value ?? 0) * 3.6e6)} ± `)
  })
  test('says that cabinet height costs nothing in a closed loop and a sump’s lift does', () => {
    const closed = demoDossier('Ledger 700')
    const { assessment } = showStation(<Findings hookup={null} />, closed)
    expect(text()).toContain('Measured 681 ± 15 L/h empty, without hoses, at zero head; label 700 L/h.')
    cleanup()
    showStation(<Findings hookup={assessment.main} />, closed)
    expect(text()).toMatch(
      /Does cabinet height cost flow\?No\. Both hoses end under water, so the 0\.9\s?m down and up cancel out\./,
    )
    cleanup()
    const sump = demoDossier('Undercroft 90')
    const open = showStation(<Findings hookup={null} />, sump).assessment.main
    cleanup()
    showStation(<Findings hookup={open} />, sump)
    expect(text()).toMatch(/the pump loses 0\.97\sm of head/)
  })
  test('the list of changes has one that helps and names a spray bar’s price', () => {
    const d = demoDossier('Plainbody 1000')
    const main = showStation(<Findings hookup={null} />, d).assessment.main
    cleanup()
    if (!main) throw new Error('no hookup')
    showStation(<SensitivityList hookup={main} />, d)
    expect(screen.getByRole('row', { name: /Hose one size wider/ }).textContent).toMatch(/\+\d+/)
    expect(screen.getByRole('row', { name: /Spray bar/ }).textContent).toMatch(/−\d+/)
  })
  test('a new timing starts from the conditions of the last; without any it says how to begin', () => {
    const d = demoDossier('Torrent 1400')
    showStation(<TrialList />, d)
    expect(screen.getAllByRole('row')).toHaveLength(d.trials.length + 1)
    fireEvent.click(screen.getByRole('button', { name: 'Time the flow' }))
    expect(writes[0]?.[2]).toMatchObject({
      state: 'proposed',
      vesselVolume: 0.01,
      hookupId: d.hookups[0]?.id,
    })
    cleanup()
    showStation(<TrialList />, without(d, 'trials', 'readings'))
    expect(text()).toContain('First empty and without hoses, then as installed.')
  })
  test('pieces of a hookup are moved, removed and added whole', () => {
    const d = demoDossier('Gale HB')
    showStation(<Hookups />, d)
    const ids = d.hookups[0]?.segments.map((s) => s.id) ?? []
    fireEvent.click(screen.getByRole('button', { name: 'Move Intake strainer down' }))
    const order = (w: Written | undefined) =>
      (w?.[2].segments as { id: string }[] | undefined)?.map((s) => s.id)
    expect(order(writes[0])).toEqual([ids[1], ids[0], ...ids.slice(2)])
    fireEvent.click(screen.getByRole('button', { name: 'Remove Lift tube' }))
    expect(order(writes[1])).toEqual(ids.filter((i) => i !== 'lift-tube'))
    fireEvent.change(screen.getByLabelText('Add'), { target: { value: 'tap' } })
    expect((writes[2]?.[2].segments as { label: string }[] | undefined)?.at(-1)?.label).toBe(
      'Quick-release tap, fully open',
    )
    cleanup()
    showStation(<Hookups />, without(d, 'hookups'))
    fireEvent.click(screen.getByRole('button', { name: 'Add plumbing' }))
    expect(writes[3]?.[2]).toMatchObject({ name: 'On the rim', outletAboveWater: 0.03 })
  })
})

describe('Tanks and Verdict', () => {
  test('each known tank is judged with its turnovers', () => {
    showStation(<TankRange />, demoDossier('Gale HB'))
    const shrimp = screen.getByRole('row', { name: /Ferry café, shrimp/ })
    expect(shrimp.textContent).toMatch(
      /supports 66 ± 24.*Current too strong along 2\d\s?% of the tank\.By its own balance: ammonia [\d.,\s]+\s?mg\/L\./,
    )
    expect(screen.getByRole('row', { name: /^Normal/ }).textContent).toMatch(/limit33/)
  })
  test('without any flow there is nothing to judge, and it says where to go', () => {
    showStation(<TankRange />, without(demoDossier('Gale HB'), 'claims', 'trials', 'readings', 'hookups'))
    expect(text()).toContain('No flow is known yet')
  })
  test('words, ratio, basis, how the unit came, reasons and what is missing', () => {
    const d = demoDossier('Terrace 1200')
    showStation(<VerdictView />, d)
    expect(
      screen.getByRole('heading', {
        level: 2,
        name: /^The claim is probably too high.*× 1\.8/,
      }),
    ).toBeTruthy()
    expect(text()).toContain('The unit was loaned to us.')
    expect(
      within(screen.getByRole('region', { name: 'Three reasons that matter' })).getAllByRole('listitem')
        .length,
    ).toBe(3)
    cleanup()
    showStation(<VerdictView />, without(d, 'trials', 'readings', 'specimens'))
    expect(text()).toMatch(/Still unknown \(\d\)/)
    cleanup()
    // A label alone is not judged: what is still needed stands instead.
    showStation(<VerdictView />, without(d, 'trials', 'readings', 'specimens', 'fills'))
    expect(screen.getByRole('heading', { level: 2, name: 'Not enough data for a verdict' })).toBeTruthy()
    expect(screen.getByRole('region', { name: 'Still needed' })).toBeTruthy()
    expect(screen.queryByRole('region', { name: 'Three reasons that matter' })).toBeNull()
  })
})

describe('Strip', () => {
  test('parts with their faults marked, reach, contents and what the review will say', () => {
    const d = demoDossier('Coracle A1')
    showStation(<Strip />, d)
    expect(screen.getByRole('list', { name: 'Parts' }).children).toHaveLength(d.parts.length)
    expect(text()).toContain('Unplug the air pump')
    expect(text()).toContain('Not disclosed yet: payment, contract, gifts, preview.')
    expect(screen.getByRole('row', { name: /the media/ })).toBeTruthy()
  })
  test('a fault replaces the good word, faults add up, the good word clears them', () => {
    const d = demoDossier('Ledger 700')
    const ring = {
      ...d,
      parts: d.parts.filter((p) => p.name === 'Main O-ring').map((p) => ({ ...p, findings: ['supple'] })),
    }
    showStation(<Strip />, ring)
    const toggles = screen.getByRole('group', { name: 'Condition: o-ring or seal' })
    fireEvent.click(within(toggles).getByRole('button', { name: 'dry' }))
    expect(writes[0]).toEqual(['change', 'parts', { findings: ['dry'] }])
    cleanup()
    showStation(<Strip />, { ...ring, parts: ring.parts.map((p) => ({ ...p, findings: ['dry'] })) })
    fireEvent.click(screen.getByRole('button', { name: 'cracked' }))
    fireEvent.click(screen.getByRole('button', { name: 'supple' }))
    expect(writes.slice(1).map((w) => w[2].findings)).toEqual([['dry', 'cracked'], ['supple']])
  })
  test('the printed contents are taken over as a list to tick off', () => {
    const d = demoDossier('Plainbody 1000')
    showStation(<Strip />, d)
    expect(text()).toContain('One listed item was missing.')
    cleanup()
    showStation(<Strip />, without(d, 'contents'))
    fireEvent.click(screen.getByRole('button', { name: /Add the \d listed items/ }))
    expect(writes.map((w) => w[2].name)).toContain('4 trays')
  })
  test('photos too large, empty or of another kind are refused before they are sent', () => {
    const d = demoDossier('Ledger 700')
    showStation(<Strip />, d)
    const file = (name: string, size: number, type: string) =>
      Object.defineProperty(new File(['x'], name, { type }), 'size', { value: size })
    fireEvent.change(screen.getByLabelText('Add photos'), {
      target: {
        files: [
          file('a.jpg', 30e6, 'image/jpeg'),
          file('b.pdf', 100, 'application/pdf'),
          file('c.jpg', 0, 'image/jpeg'),
          file('d.jpg', 500, 'image/jpeg'),
        ],
      },
    })
    expect(text()).toContain('a.jpg has 30 MB; at most 20 MB are taken.')
    expect(text()).toContain('b.pdf is no photo')
    expect(text()).toContain('c.jpg is empty.')
    expect(writes.map((w) => w.slice(0, 2))).toEqual([['create', 'photos']])
  })
})

describe('Inside', () => {
  test('litres under their names, closure, the label’s media volume, weight', () => {
    showStation(<Inside />, demoDossier('Torrent 1400'))
    expect(text()).toMatch(/apart, within the 1 % limit/)
    expect(text()).toMatch(/7\sL on the label, 8\d\s%/)
    expect(text()).toMatch(/12\.2\skg\s?measured/)
  })
  test('choosing in the sheet chooses in the drawing, and the other way round', () => {
    showStation(<Inside />, demoDossier('Ledger 700'))
    fireEvent.click(screen.getByRole('button', { name: 'Upper tray' }))
    expect(screen.getByRole('button', { name: /^Upper tray: / }).getAttribute('aria-pressed')).toBe('true')
    fireEvent.click(screen.getByRole('button', { name: /^Settling space: / }))
    expect(screen.getByRole('region', { name: 'Settling space' })).toBeTruthy()
  })
  test('a measured size also marks the chamber as measured; moving it in the flow swaps two places', () => {
    const d = demoDossier('Ledger 700')
    showStation(<Inside />, d)
    const width = screen.getByLabelText('Width, inside')
    fireEvent.change(width, { target: { value: '17 mm' } })
    fireEvent.blur(width)
    expect(writes[0]).toEqual([
      'change',
      'chambers',
      { width: 0.017, typed: { width: '17 mm' }, measured: true },
    ])
    fireEvent.click(screen.getByRole('button', { name: 'Move Side channel later in the flow' }))
    expect(writes.slice(1).map((w) => w[2])).toEqual([{ position: 2 }, { position: 1 }])
  })
  test('before anything is measured, the usual interior is offered with every chamber dashed', () => {
    const d = demoDossier('Triptych 600')
    showStation(<Inside />, without(d, 'bodies', 'chambers'))
    fireEvent.click(screen.getByRole('button', { name: 'Start from a typical layout' }))
    expect(writes[0]?.[1]).toBe('bodies')
    const chambers = writes.filter((w) => w[1] === 'chambers')
    expect(chambers.map((w) => w[2].name)).toEqual([
      'Coarse compartment',
      'Middle compartment',
      'Upper compartment',
      'Pump',
    ])
    expect(chambers.every((w) => w[2].measured === false)).toBe(true)
  })
  test('a sum that does not close, and 20 kg, are said', () => {
    const d = demoDossier('Undercroft 90')
    const wrong = { ...d, bodies: d.bodies.map((b) => ({ ...b, waterFill: (b.waterFill ?? 0) * 0.9 })) }
    showStation(<Inside />, wrong)
    expect(text()).toContain('off: a chamber is missing or measured wrong')
    expect(text()).toContain('it passes 20 kg')
  })
})
