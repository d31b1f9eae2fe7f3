import { BODY_RULES } from './body'
import { BYPASS_RULES } from './bypass'
import { STRAINING_RULES } from './straining'
import type { Rule } from './types'

export * from './types'

/** All rules of the order audit. What they find comes from the network and the volumes, not from positions alone. */
export const RULES: readonly Rule[] = [...STRAINING_RULES, ...BYPASS_RULES, ...BODY_RULES]
