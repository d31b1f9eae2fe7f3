import { put, type Figure } from '../figures'
import { FILTERS, hasPump, type FilterKind } from '../kinds'

/** Checks of a second-hand unit of a kind before it runs, in order (common practice, no source). */
export function usedChecks(kind: FilterKind): readonly string[] {
  const pump = hasPump(kind)
  return [
    ...(pump
      ? ['Unplugged: cord and plug whole, no repair in the cord']
      : ['Air hose not hard, check valve holds']),
    ...(pump ? ['Impeller: magnet not swollen or scored, shaft straight, blades whole'] : []),
    ...(FILTERS[kind].secondHand ?? []),
    'Media out: what lived elsewhere is thrown away or disinfected',
  ]
}

/** Share of its list price that a sound used unit fetches (common practice, no source: about half). */
const OF_LIST = 0.5
const BAND = 0.3

/**
 * Worth of a used unit (minor units): half its list price, less the spares it needs; never below nothing.
 * @throws nothing; null without a list price.
 */
export function usedWorth(
  listMinor: number | null,
  needs: readonly { readonly name: string; readonly minor: number }[],
): Figure | null {
  if (listMinor === null) return null
  const spares = needs.reduce((sum, n) => sum + n.minor, 0)
  return {
    id: 'used-worth',
    label: 'Worth with the spares it needs',
    value: Math.max(0, OF_LIST * listMinor - spares),
    uncertainty: BAND * OF_LIST * listMinor,
    dimension: 'ratio',
    provenance: 'rule',
    formula: '½ list price − Σ spares',
    working: [
      put('P', 'list price, minor units', listMinor, 'ratio', 'printed'),
      ...needs.map((n, i) =>
        put(`s_${i + 1}`, `${n.name.toLowerCase()}, minor units`, n.minor, 'ratio', 'printed'),
      ),
    ],
    source: 'common practice, no source',
  }
}
