/** An id for a piece made here, from what it is. */
export const newId = (what: string): string => `${what}-${crypto.randomUUID().slice(0, 8)}`
