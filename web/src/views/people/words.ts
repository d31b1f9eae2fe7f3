import type { Role } from '@ypsometer/contract'

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner',
  editor: 'Editor',
  reader: 'Reader',
}
export const ROLE_OPTIONS = Object.entries(ROLE_WORDS) as readonly (readonly [Role, string])[]
/** Rights of each role, in a few words. */
export const ROLE_MAY: Readonly<Record<Role, string>> = {
  owner: 'reads and writes everything, manages people',
  editor: 'reads and writes everything',
  reader: 'reads everything, changes nothing',
}

/** By what they say of themselves; who also says what another does stands before it. */
const BROWSERS = { Edg: 'Edge', OPR: 'Opera', Firefox: 'Firefox', Chrome: 'Chrome', Safari: 'Safari' }
const SYSTEMS = {
  Android: 'Android',
  iPhone: 'iPhone',
  iPad: 'iPad',
  Windows: 'Windows',
  'Mac OS X': 'Mac',
  Linux: 'Linux',
}

/** A browser by what it says of itself: “Firefox, Linux”. Only for telling one’s own sessions apart. */
export function agentWords(agent: string): string {
  const named = (names: Readonly<Record<string, string>>): string | undefined =>
    Object.entries(names).find(([sign]) => agent.includes(sign))?.[1]
  return [named(BROWSERS) ?? 'A program', named(SYSTEMS)].filter(Boolean).join(', ')
}
