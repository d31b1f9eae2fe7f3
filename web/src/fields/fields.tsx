import { errorMessage } from '../api/errorMessage'
import { LIMITS, type FieldLimits } from '@ypsometer/contract/limits'
import type { PatchOf, ResourceName, RowOf } from '@ypsometer/contract'
import { sentenceText, type Sentence } from '@ypsometer/core/figures/figure'
import { example, parseQuantity } from '@ypsometer/core/units/parse'
import { findUnit, fromSI, preferredUnit, type Dimension } from '@ypsometer/core/units/dimensions'
import { showQuantity, trimZeros } from '@ypsometer/core/units/format'
import { useId } from 'react'
import { changeRow } from '../api/rows'
import { units } from '../settings/settings'
import { FieldShell } from './FieldShell'
import { patchOf, type FieldOf } from './patch'
import { useAutosaved, useParked, type Reading } from './useAutosaved'

interface Common<N extends ResourceName, V> {
  readonly collection: N
  readonly row: RowOf<N>
  readonly field: FieldOf<N, V>
  readonly label: string
  readonly hideLabel?: boolean
  readonly hint?: React.ReactNode
}

interface Shown {
  readonly dimension: Dimension
}

/** Limits of a field, as its row declares them. */
const limitsOf = (collection: ResourceName, field: string): FieldLimits => LIMITS[collection][field] ?? {}

interface QuantityProps<N extends ResourceName> extends Common<N, number> {
  /** Dimension, where its unit alone does not say so, such as a head in metres. */
  readonly dimension?: Dimension
  /** Unit of a bare number where the system's own is awkward, such as mm for a bore. */
  readonly unit?: string
  /** Narrower limits here than those of its row. */
  readonly within?: { readonly min: number; readonly max: number }
  readonly doubt?: (si: number) => Sentence | null
  readonly check?: (si: number) => string | null
  readonly align?: 'right'
  /** Stored for each one typed: nitrogen in an ion, where the card counts the ion. */
  readonly scale?: number
  /** Columns that change along with this one, such as the mark that a size has been measured. */
  readonly also?: PatchOf<N>
}

/** A field for a number with a unit. Takes any unit of its dimension, keeps what was typed beside the SI value. */
export function QuantityField<N extends ResourceName>(given: QuantityProps<N>) {
  const limits = limitsOf(given.collection, given.field)
  const { scale = 1 } = given
  const ends = { ...limits, ...given.within }
  const [min, max] = [ends.min, ends.max].map((v) => (v === undefined ? undefined : v / scale))
  const p = { ...given, dimension: given.dimension ?? limits.dimension ?? 'ratio' }
  const id = useId()
  const system = units.use()
  const value: unknown = p.row[p.field]
  const si = typeof value === 'number' ? value / scale : null
  const unit = (p.unit && findUnit(p.unit, p.dimension, system)) || preferredUnit(p.dimension, system)
  const typed = typedOf(p.row)[p.field]
  const shown =
    si === null ? '' : (typedAs(typed, si, p, unit.symbol, system) ?? plainText(si, p, unit.symbol, system))
  const say = (v: number): string => {
    const s = showQuantity(v, p.dimension, system, 3, unit.symbol)
    return `${trimZeros(s.number)} ${s.unit}`.trim()
  }
  const read = (text: string): Reading<N> => {
    if (!text.trim())
      return limits.nullable
        ? { kind: 'ok', body: patchOf<N>(p.field, null, { typed: { [p.field]: '' } }) }
        : {
            kind: 'error',
            message: `Enter a number, e.g. ${example(p.dimension, system)}. Keeping ${say(si ?? 0)} for now.`,
          }
    try {
      const q = parseQuantity(text, { dimension: p.dimension, system, bare: unit.symbol, field: p.label })
      if (min !== undefined && q.si < min) return { kind: 'error', message: `Minimum ${say(min)}.` }
      if (max !== undefined && q.si > max) return { kind: 'error', message: `Maximum ${say(max)}.` }
      if (limits.whole && !Number.isInteger(q.si)) return { kind: 'error', message: 'Enter a whole number.' }
      const wrong = p.check?.(q.si)
      if (wrong) return { kind: 'error', message: wrong }
      const body = patchOf<N>(p.field, q.si * scale, { typed: { [p.field]: text.trim() }, ...p.also })
      const question = p.doubt?.(q.si)
      return question ? { kind: 'ask', question: sentenceText(question, system), body } : { kind: 'ok', body }
    } catch (error) {
      return { kind: 'error', message: errorMessage(error) }
    }
  }
  const field = useAutosaved({ ...p, shown, read })
  const foreign =
    typed && si !== null && shown !== typed && field.text === shown ? `typed “${typed}”` : undefined
  return (
    <FieldShell
      id={id}
      label={p.label}
      row={p.row}
      field={p.field}
      hint={foreign ?? p.hint}
      error={field.error}
      question={field.question}
      onAgree={field.agree}
      onRevert={field.revert}
      parked={field.parked}
      showValue={(v) => (typeof v === 'number' ? say(v / scale) : 'empty')}
      {...(p.hideLabel && { hideLabel: true })}
    >
      <input
        id={id}
        className={`field num ${p.align === 'right' ? 'text-right' : ''}`}
        inputMode="text"
        autoComplete="off"
        value={field.text}
        placeholder={limits.nullable ? 'not set' : `such as ${example(p.dimension, system)}`}
        aria-invalid={field.error ? true : undefined}
        aria-describedby={`${id}-said`}
        onChange={(e) => field.onChange(e.target.value)}
        onBlur={field.onLeave}
        onKeyDown={(e) => e.key === 'Enter' && field.onLeave()}
      />
    </FieldShell>
  )
}

/** Texts as they were typed, of a row that keeps them. */
const typedOf = (row: object): Readonly<Record<string, string>> =>
  'typed' in row ? (row.typed as Record<string, string>) : {}

const plainText = (
  si: number,
  p: Shown,
  unit: string,
  system: Parameters<typeof showQuantity>[2],
): string => {
  const chosen = findUnit(unit, p.dimension, system)
  if (!chosen) return ''
  const value = Number(fromSI(si, chosen).toPrecision(6))
  return `${value} ${chosen.symbol}`.trim()
}

/** Text as typed, when it still says this value in the unit now shown. */
function typedAs(
  typed: string | undefined,
  si: number,
  p: Shown,
  unit: string,
  system: Parameters<typeof showQuantity>[2],
): string | null {
  if (!typed) return null
  try {
    const q = parseQuantity(typed, { dimension: p.dimension, system, bare: unit })
    return Math.abs(q.si - si) <= 1e-9 * Math.max(1e-6, Math.abs(si)) && q.unit === unit ? typed : null
  } catch {
    return null
  }
}

interface TextProps<N extends ResourceName> extends Common<N, string> {
  readonly lines?: number
}

/** A field for words. */
export function TextField<N extends ResourceName>(p: TextProps<N>) {
  const { nullable = false, needed = false, longest = Infinity } = limitsOf(p.collection, p.field)
  const id = useId()
  const shown = String(p.row[p.field] ?? '')
  const read = (text: string): Reading<N> => {
    if (needed && !nullable && !text.trim())
      return { kind: 'error', message: `${p.label} cannot be empty. Until then “${shown}” stays.` }
    if (text.length > longest)
      return { kind: 'error', message: `${text.length} characters; at most ${longest} are accepted.` }
    return { kind: 'ok', body: patchOf<N>(p.field, nullable && !text.trim() ? null : text) }
  }
  const field = useAutosaved({ ...p, shown, read })
  const common = {
    id,
    className: 'field',
    value: field.text,
    'aria-invalid': field.error ? true : undefined,
    'aria-describedby': `${id}-said`,
    onBlur: field.onLeave,
  } as const
  return (
    <FieldShell
      id={id}
      label={p.label}
      row={p.row}
      field={p.field}
      hint={p.hint}
      error={field.error}
      parked={field.parked}
      {...(p.hideLabel && { hideLabel: true })}
    >
      {p.lines ? (
        <textarea {...common} rows={p.lines} onChange={(e) => field.onChange(e.target.value)} />
      ) : (
        <input
          {...common}
          autoComplete="off"
          onChange={(e) => field.onChange(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && field.onLeave()}
        />
      )}
    </FieldShell>
  )
}

interface SelectProps<N extends ResourceName> extends Common<N, string | number> {
  readonly options: readonly (readonly [value: string, label: string])[]
  readonly numeric?: boolean
  readonly none?: string
}

/** A choice; written as soon as it is made. */
export function SelectField<N extends ResourceName>(p: SelectProps<N>) {
  const id = useId()
  const value = p.row[p.field]
  const parked = useParked(p.row, p.field)
  return (
    <FieldShell
      id={id}
      label={p.label}
      row={p.row}
      field={p.field}
      hint={p.hint}
      parked={parked}
      {...(p.hideLabel && { hideLabel: true })}
    >
      <select
        id={id}
        className="field"
        aria-describedby={`${id}-said`}
        value={String(value ?? '')}
        onChange={(e) =>
          changeRow(
            p.collection,
            p.row,
            patchOf<N>(
              p.field,
              e.target.value === '' ? null : p.numeric ? Number(e.target.value) : e.target.value,
            ),
          )
        }
      >
        {p.none && <option value="">{p.none}</option>}
        {p.options.map(([v, label]) => (
          <option key={v} value={v}>
            {label}
          </option>
        ))}
      </select>
    </FieldShell>
  )
}

/** A day, or none; written as soon as it is whole. */
export function DateField<N extends ResourceName>(p: Common<N, string>) {
  const id = useId()
  const value = String(p.row[p.field] ?? '')
  const parked = useParked(p.row, p.field)
  return (
    <FieldShell id={id} label={p.label} row={p.row} field={p.field} hint={p.hint} parked={parked}>
      <input
        id={id}
        type="date"
        className="field num"
        aria-describedby={`${id}-said`}
        value={value}
        onChange={(e) => changeRow(p.collection, p.row, patchOf<N>(p.field, e.target.value || null))}
      />
    </FieldShell>
  )
}
