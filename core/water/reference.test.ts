import {
  freshWaterDensity,
  freshWaterViscosity,
  seaWaterDensity,
  seaWaterViscosity,
  waterProperties,
} from './properties'

/* value | source | from memory? | tolerance */
test.each([
  [4, 999.975],
  [20, 998.207],
  [25, 997.047],
  [30, 995.649],
])('fresh water density at %d °C is %d kg/m³ (Tanaka et al. 2001, table; from memory; ±0.001)', (t, rho) => {
  expect(Math.abs(freshWaterDensity(t) - rho)).toBeLessThan(0.001)
})

test.each([
  [20, 1.002],
  [25, 0.89],
  [30, 0.797],
])(
  'fresh water viscosity at %d °C is %d mPa·s (Kestin 1978, IAPWS R12-08 agrees; from memory; 0.1 %)',
  (t, mu) => {
    expect(Math.abs((freshWaterViscosity(t) * 1e3) / mu - 1)).toBeLessThan(1e-3)
  },
)

test.each([
  [35, 5, 1027.67547],
  [35, 25, 1023.34306],
  [0, 5, 999.96675],
])(
  'sea water density at S %d, %d °C is %d kg/m³ (UNESCO 44, 1983, check values; from memory; ±1e-4)',
  (s, t, rho) => {
    expect(Math.abs(seaWaterDensity(t, s) - rho)).toBeLessThan(1e-4)
  },
)

test('sea water at 25 °C, S 35 is about 0.959 mPa·s (Isdale/Sharqawy table; from memory; 1 %)', () => {
  expect(Math.abs(seaWaterViscosity(25, 35) / 0.959e-3 - 1)).toBeLessThan(0.01)
})

test('fresh and sea agree where they meet, and a wrong temperature names its field', () => {
  expect(seaWaterViscosity(25, 0)).toBe(freshWaterViscosity(25))
  expect(Math.abs(seaWaterDensity(25, 0) - freshWaterDensity(25))).toBeLessThan(0.01)
  expect(waterProperties({ temperature: 25 }).kinematicViscosity).toBeCloseTo(8.93e-7, 9)
  expect(() => waterProperties({ temperature: 80 })).toThrow(
    'temperature is 80; it must be between 0 and 40 °C',
  )
})
