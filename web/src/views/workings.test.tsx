import '../../tests/setup'
import { modelRecord } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { demoDossier, demoModels, demoTanks, showStation, demoMedia } from '../../tests/dossier'
import { haveLists } from '../../tests/backend'
import { figuresIn, mute } from '../../tests/numbers'
import { units } from '../settings/settings'

jest.mock('../workers/livingRemote', () => jest.requireActual<object>('../../tests/livingRemote'))
jest.mock('../charts/HeadFlow', () => ({ __esModule: true, default: () => null }))

import { BudgetList } from '../charts/BudgetColumn'
import Bench from '../stations/bench'
import { ChamberList } from './inside/ChamberList'
import { VolumeSheet } from './inside/VolumeSheet'
import { ReachSheet } from './strip/ReachSheet'
import { TankSheet } from './tanks/TankSheet'
import TankRange from '../stations/tanks'
import VerdictView from '../stations/verdict'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'

afterEach(cleanup)
beforeEach(() => {
  units.set('metric')
  haveLists({ tanks: demoTanks() })
})

const names = demoModels()

test.each(names)('%s: every number of its stations can show its working', (name) => {
  const dossier = demoDossier(name)
  for (const view of [
    <Bench key="b" />,
    <VolumeSheet key="v" />,
    <ChamberList key="c" chambers={dossier.chambers} selected={null} onSelect={() => undefined} />,
    <ReachSheet key="r" parts={dossier.parts} />,
    <TankRange key="t" />,
    <VerdictView key="j" />,
  ]) {
    const { container, unmount } = showStation(view, dossier)
    expect(mute(container)).toEqual([])
    unmount()
  }
})

test('every number beside a tank can show its working', () => {
  const tank = demoTanks()[0]
  if (!tank) throw new Error('no demo tank')
  const { container } = showStation(
    <TankSheet tank={tank} stock={[...STOCK_CLASSES]} />,
    demoDossier('Ledger 700'),
  )
  expect(mute(container)).toEqual([])
  expect(container.querySelectorAll('[aria-expanded]').length).toBeGreaterThanOrEqual(5)
})

test('the head budget as a list opens on the loss formula with the numbers put in', () => {
  const dossier = demoDossier('Ledger 700')
  const a = assess(modelRecord(dossier))
  showStation(<BudgetList lines={a.main?.budget ?? []} />, dossier)
  const hose = screen.getAllByRole('row').find((r) => /hose/i.test(r.textContent))
  const button = hose?.querySelector('button')
  if (!button) throw new Error('no hose in the budget')
  fireEvent.click(button)
  const panel = screen.getByRole('dialog')
  for (const words of ['h = f (L/D) v²/2g', 'inner diameter', 'Reynolds number', 'Darcy'])
    expect(panel.textContent).toContain(words)
})

test.each(names)(
  '%s: every figure of its assessment is a number with an origin, a computed one with a formula',
  (name) => {
    const all = [...figuresIn(assess(modelRecord(demoDossier(name), demoMedia())))]
    expect(all.length).toBeGreaterThan(5)
    for (const f of all) {
      expect([f.id, Number.isFinite(f.value)]).toEqual([f.id, true])
      for (const w of f.working ?? [])
        expect([f.id, w.symbol, Number.isFinite(w.value)]).toEqual([f.id, w.symbol, true])
      if (f.provenance === 'computed')
        expect([f.id, Boolean(f.formula), f.working?.length ?? 0]).toEqual([f.id, true, expect.any(Number)])
      if (f.provenance === 'printed') expect([f.id, (f.conditions?.length ?? 0) > 0]).toEqual([f.id, true])
    }
  },
)

test('a hose’s loss worked again from its own working gives the same head', () => {
  const budget = assess(modelRecord(demoDossier('Ledger 700'))).main?.budget ?? []
  const hose = budget.find((l) => l.kind === 'hose')?.figure
  const at = (s: string): number => hose?.working?.find((w) => w.symbol === s)?.value ?? NaN
  // Darcy–Weisbach by hand: h = f (L/D) v²/2g.
  expect(hose?.value).toBeCloseTo((at('f') * at('L') * at('v') ** 2) / (at('D') * 2 * 9.80665), 10)
  expect(at('v')).toBeCloseTo(at('Q') / ((Math.PI / 4) * at('D') ** 2), 10)
})
