import { sentenceText, type Sentence } from '@ypsometer/core/figures'
import {
  example,
  findUnit,
  fromSI,
  parseQuantity,
  preferredUnit,
  showQuantity,
  trimZeros,
  type Dimension,
} from '@ypsometer/core/units'
import { useId } from 'react'
import { changeRow } from '../api/queries'
import type { Collection } from '../api/outbox'
import { units } from '../frame/settings'
import { FieldShell } from './FieldShell'
import { useAutosaved, type Reading } from './useAutosaved'

interface Common {
  readonly collection: Collection
  readonly row: { readonly id: string; readonly version: number }
  readonly field: string
  readonly label: string
  readonly hideLabel?: boolean
  readonly hint?: React.ReactNode
}

interface QuantityProps extends Common {
  readonly dimension: Dimension
  /** Unit of a bare number where the system's own is awkward, such as mm for a bore. */
  readonly unit?: string
  readonly optional?: boolean
  readonly min?: number
  readonly max?: number
  readonly doubt?: (si: number) => Sentence | null
  readonly check?: (si: number) => string | null
  readonly align?: 'right'
  /** Columns that change along with this one, such as the mark that a size has been measured. */
  readonly also?: Readonly<Record<string, unknown>>
}

/** A field for a number with a unit. Takes any unit of its dimension, keeps what was typed beside the SI value. */
export function QuantityField(p: QuantityProps) {
  const id = useId()
  const system = units.use()
  const data = p.row as unknown as Record<string, unknown> & { typed?: Record<string, string> }
  const si = data[p.field] as number | null
  const unit = (p.unit && findUnit(p.unit, p.dimension, system)) || preferredUnit(p.dimension, system)
  const typed = data.typed?.[p.field]
  const shown =
    si === null || si === undefined
      ? ''
      : (typedAs(typed, si, p, unit.symbol, system) ?? plainText(si, p, unit.symbol, system))
  const say = (v: number): string => {
    const s = showQuantity(v, p.dimension, system, 3, unit.symbol)
    return `${trimZeros(s.number)} ${s.unit}`.trim()
  }
  const read = (text: string): Reading => {
    if (!text.trim())
      return p.optional
        ? { kind: 'ok', body: { [p.field]: null, typed: { [p.field]: '' } } }
        : {
            kind: 'error',
            message: `Needed: a number such as ${example(p.dimension, system)}. Until then ${say(si ?? 0)} stays.`,
          }
    try {
      const q = parseQuantity(text, { dimension: p.dimension, system, bare: unit.symbol, field: p.label })
      if (p.min !== undefined && q.si < p.min)
        return { kind: 'error', message: `${say(q.si)} is too little: at least ${say(p.min)} is accepted.` }
      if (p.max !== undefined && q.si > p.max)
        return { kind: 'error', message: `${say(q.si)} is too much: at most ${say(p.max)} is accepted.` }
      const wrong = p.check?.(q.si)
      if (wrong) return { kind: 'error', message: wrong }
      const body = { [p.field]: q.si, typed: { [p.field]: text.trim() }, ...p.also }
      const question = p.doubt?.(q.si)
      return question ? { kind: 'ask', question: sentenceText(question, system), body } : { kind: 'ok', body }
    } catch (error) {
      return { kind: 'error', message: error instanceof Error ? error.message : String(error) }
    }
  }
  const field = useAutosaved({ ...p, shown, read })
  const foreign =
    typed && si !== null && shown !== typed && field.text === shown ? `typed “${typed}”` : undefined
  return (
    <FieldShell
      id={id}
      label={p.label}
      field={p.field}
      hint={foreign ?? p.hint}
      error={field.error}
      question={field.question}
      onAgree={field.agree}
      onRevert={field.revert}
      parked={field.parked}
      showValue={(v) => (typeof v === 'number' ? say(v) : 'empty')}
      {...(p.hideLabel && { hideLabel: true })}
    >
      <input
        id={id}
        className={`field num ${p.align === 'right' ? 'text-right' : ''}`}
        inputMode="text"
        autoComplete="off"
        value={field.text}
        placeholder={p.optional ? 'not set' : example(p.dimension, system)}
        aria-invalid={field.error ? true : undefined}
        aria-describedby={`${id}-said`}
        onChange={(e) => field.onChange(e.target.value)}
        onBlur={field.onLeave}
        onKeyDown={(e) => e.key === 'Enter' && field.onLeave()}
      />
    </FieldShell>
  )
}

const plainText = (
  si: number,
  p: QuantityProps,
  unit: string,
  system: Parameters<typeof showQuantity>[2],
): string => {
  const chosen = findUnit(unit, p.dimension, system)
  if (!chosen) return ''
  const value = Number(fromSI(si, chosen).toPrecision(6))
  return `${value} ${chosen.symbol}`.trim()
}

/** What was typed, when it still says this value in the unit now shown. */
function typedAs(
  typed: string | undefined,
  si: number,
  p: QuantityProps,
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

interface TextProps extends Common {
  readonly max: number
  readonly required?: boolean
  readonly lines?: number
  readonly nullable?: boolean
}

/** A field for words. */
export function TextField(p: TextProps) {
  const id = useId()
  const shown = ((p.row as unknown as Record<string, unknown>)[p.field] as string | null) ?? ''
  const read = (text: string): Reading => {
    if (p.required && !text.trim())
      return { kind: 'error', message: `${p.label} cannot be empty. Until then “${shown}” stays.` }
    if (text.length > p.max)
      return { kind: 'error', message: `${text.length} characters; at most ${p.max} are accepted.` }
    return { kind: 'ok', body: { [p.field]: p.nullable && !text.trim() ? null : text } }
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

interface SelectProps extends Common {
  readonly options: readonly (readonly [value: string, label: string])[]
  readonly numeric?: boolean
  readonly none?: string
}

/** A choice; written as soon as it is made. */
export function SelectField(p: SelectProps) {
  const id = useId()
  const value = (p.row as unknown as Record<string, unknown>)[p.field]
  const { parked } = useAutosaved({
    ...p,
    shown: String(value ?? ''),
    read: () => ({ kind: 'ok', body: {} }),
  })
  return (
    <FieldShell
      id={id}
      label={p.label}
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
          changeRow(p.collection, p.row, {
            [p.field]: e.target.value === '' ? null : p.numeric ? Number(e.target.value) : e.target.value,
          })
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
export function DateField(p: Common) {
  const id = useId()
  const value = (p.row as unknown as Record<string, unknown>)[p.field] as string | null
  const { parked } = useAutosaved({ ...p, shown: value ?? '', read: () => ({ kind: 'ok', body: {} }) })
  return (
    <FieldShell id={id} label={p.label} field={p.field} hint={p.hint} parked={parked}>
      <input
        id={id}
        type="date"
        className="field num"
        aria-describedby={`${id}-said`}
        value={value ?? ''}
        onChange={(e) => changeRow(p.collection, p.row, { [p.field]: e.target.value || null })}
      />
    </FieldShell>
  )
}
