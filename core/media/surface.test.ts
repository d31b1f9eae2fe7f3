import { filmSurface, GENERIC_MEDIA, keptShare, SINTERED_SURFACE, type Medium } from '.'

const medium = (name: string): Medium => {
  const found = GENERIC_MEDIA.find((m) => m.name.startsWith(name))
  if (!found) throw new Error(name)
  return found
}
const area = (m: Medium): number => filmSurface(m).perVolume * filmSurface(m).working

describe('effective area of a litre of medium', () => {
  test('common practice, no source: coarse foam carries a reasonable share, more than ceramic rings of the same litres', () => {
    expect(area(medium('Coarse foam'))).toBeGreaterThan(area(medium('Ceramic rings')))
    expect(area(medium('Coarse foam'))).toBeLessThan(area(medium('Sintered glass')) / 2)
  })
  test('sintered media against shipped coarse foam of the same litres: more, by the factor of their areas', () => {
    // 1100 m²/m³ against 350 m²/m³ of which three quarters work: 4.19 times.
    expect(area(medium('Sintered glass')) / area(medium('Coarse foam'))).toBeCloseTo(1100 / (350 * 0.75), 9)
  })
  test('what is thrown away within two months keeps no film, what outlives four keeps all of it, evenly between', () => {
    const kept = (lifeDays: number | null) => keptShare({ form: 'foam', lifeDays })
    expect([kept(30), kept(60), kept(90), kept(120), kept(450), kept(null)]).toEqual([0, 0, 0.5, 1, 1, 1])
    // Floss, pads and cartridges of which nobody says how long they last go as they usually do.
    expect((['pad', 'floss', 'cartridge'] as const).map((form) => keptShare({ form, lifeDays: null }))).toEqual([0, 0, 0]) // prettier-ignore
  })
  test('where no surface was entered: biological media by weight, foam by its pores, mats no more than can work', () => {
    const bare = { ...medium('Lava'), effectiveSurface: null }
    expect(filmSurface(bare).perVolume).toBeCloseTo(750 * SINTERED_SURFACE, 9)
    expect(filmSurface({ ...medium('Coarse foam'), effectiveSurface: null }).perVolume).toBe(350)
    const mat = { ...medium('Fine pad'), lifeDays: 400, effectiveSurface: null }
    expect(filmSurface(mat).perVolume).toBe(1000)
    // A guess is doubted by half at least.
    expect([filmSurface(bare).band, filmSurface(medium('Lava')).band]).toEqual([0.5, 0.4])
  })
  test('a turning wheel carries none: it will stop one day; what a user says of a medium is taken', () => {
    expect(filmSurface(medium('Turning contactor')).perVolume).toBe(0)
    const own = { ...medium('Coarse foam'), workingShare: 0.4, workingBand: 0.1, surfaceBand: 0 }
    expect(filmSurface(own)).toMatchObject({
      perVolume: 350,
      working: 0.4,
      band: 0.1,
      bands: { surface: 0, working: 0.1 },
    })
    expect(filmSurface(medium('Coarse foam')).band).toBeCloseTo(Math.hypot(0.4, 0.3), 12)
  })
})
