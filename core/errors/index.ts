/** What a field may hold, in words and numbers, so that a screen can say it. */
export interface Allowed {
  readonly min?: number
  readonly max?: number
  readonly unit?: string
  readonly words?: string
}

/** Base of every error the core throws: names the field, the value and what would be accepted. */
export class CoreError extends Error {
  constructor(
    readonly code: string,
    readonly field: string,
    readonly value: unknown,
    readonly allowed: Allowed,
    message: string,
  ) {
    super(message)
    this.name = code
  }
}

const spell = (a: Allowed): string => {
  const unit = a.unit ? ` ${a.unit}` : ''
  if (a.words) return a.words
  if (a.min !== undefined && a.max !== undefined) return `between ${a.min} and ${a.max}${unit}`
  if (a.min !== undefined) return `at least ${a.min}${unit}`
  return `at most ${a.max}${unit}`
}

/** A number outside the range a formula holds for. */
export class OutOfRange extends CoreError {
  constructor(field: string, value: number, allowed: Allowed) {
    super('OutOfRange', field, value, allowed, `${field} is ${value}; it must be ${spell(allowed)}.`)
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
export function requireRange(field: string, value: number, allowed: Allowed): number {
  const low = allowed.min ?? -Infinity
  const high = allowed.max ?? Infinity
  if (!Number.isFinite(value) || value < low || value > high) throw new OutOfRange(field, value, allowed)
  return value
}

/** Throws {@link OutOfRange} unless `value` is finite and greater than zero. */
export function requirePositive(field: string, value: number, unit?: string): number {
  if (!Number.isFinite(value) || value <= 0)
    throw new OutOfRange(field, value, { words: `greater than zero${unit ? ` ${unit}` : ''}` })
  return value
}
