/** Range of a field, in words and numbers, so that a screen can say it. */
export interface Allowed {
  readonly min?: number
  readonly max?: number
  readonly unit?: string
  readonly words?: string
}

/** Which thing of a list a field belongs to: `layers`, its id, `gap`. */
export interface At {
  readonly what: string
  readonly id: string
  readonly field: string
}

/** Base of every error the core throws: names the field, the value and what would be accepted. */
export class CoreError extends Error {
  constructor(
    readonly code: string,
    readonly field: string,
    readonly value: unknown,
    readonly allowed: Allowed,
    message: string,
    /** Where the field stands, when it is one of a thing in a list. */
    readonly at: At | null = null,
  ) {
    super(message)
    this.name = code
  }

  /** The fault, for a place where the field stands beside it. */
  get problem(): string {
    return this.message.startsWith(`${this.field} is `)
      ? `it is ${this.message.slice(this.field.length + 4)}`
      : this.message
  }

  /** The same error as one of a thing in a list. */
  inside(what: string, id: string): CoreError {
    const at = { what, id, field: this.field }
    return new CoreError(this.code, fieldName(at), this.value, this.allowed, this.message, at)
  }
}

/** A field as the API names it: `layers[id].gap`. */
export const fieldName = ({ what, id, field }: At): string => `${what}[${id}].${field}`

const spell = (a: Allowed): string => {
  const unit = a.unit ? ` ${a.unit}` : ''
  if (a.words) return a.words
  if (a.min !== undefined && a.max !== undefined) return `between ${a.min} and ${a.max}${unit}`
  if (a.min !== undefined) return `at least ${a.min}${unit}`
  return `at most ${a.max}${unit}`
}

/** A number outside the range a formula holds for. */
export class OutOfRange extends CoreError {
  constructor(field: string | At, value: number, allowed: Allowed) {
    const at = typeof field === 'string' ? null : field
    const name = typeof field === 'string' ? field : fieldName(field)
    super('OutOfRange', name, value, allowed, `${name} is ${value}; it must be ${spell(allowed)}.`, at)
  }
}

/** Too few observations for what was asked of them. */
export class TooFew extends CoreError {
  constructor(field: string, value: number, min: number, message: string) {
    super('TooFew', field, value, { min }, message)
  }
}

/** Text that could not be read as a number with a unit. */
export class UnreadableQuantity extends CoreError {
  constructor(field: string, value: string, words: string, message: string) {
    super('UnreadableQuantity', field, value, { words }, message)
  }
}

/** Throws {@link OutOfRange} unless `value` is a finite number in [min, max]. Bounds are inclusive. */
export function requireRange(field: string | At, value: number, allowed: Allowed): number {
  const low = allowed.min ?? -Infinity
  const high = allowed.max ?? Infinity
  if (!Number.isFinite(value) || value < low || value > high) throw new OutOfRange(field, value, allowed)
  return value
}

/** Throws {@link OutOfRange} unless `value` is finite and greater than zero. */
export function requirePositive(field: string | At, value: number, unit?: string): number {
  if (!Number.isFinite(value) || value <= 0)
    throw new OutOfRange(field, value, { words: `greater than zero${unit ? ` ${unit}` : ''}` })
  return value
}
