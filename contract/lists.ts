export const KINSHIPS = ['sibling', 'generation'] as const
export const OFFER_KINDS = ['sale', 'second-hand'] as const
/** Would the reviewer buy it: yes, no, or with something changed. */
export const BUYS = ['yes', 'no', 'if'] as const
