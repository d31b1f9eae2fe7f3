import type { Role } from '@ypsometer/contract'

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner',
  editor: 'Editor',
  reader: 'Reader',
}
export const ROLE_OPTIONS = Object.entries(ROLE_WORDS) as readonly (readonly [Role, string])[]
/** What each of them may do, in a few words. */
export const ROLE_MAY: Readonly<Record<Role, string>> = {
  owner: 'writes, and looks after people',
  editor: 'reads and writes everything',
  reader: 'reads everything, changes nothing',
}

/** A browser by what it says of itself: “Firefox, Linux”. Only for telling one’s own sessions apart. */
export function agentWords(agent: string): string {
  const browser = /Edg|OPR|Firefox|Chrome|Safari/.exec(agent)?.[0] ?? 'A program'
  const system = /Android|iPhone|iPad|Windows|Mac OS X|Linux/.exec(agent)?.[0] ?? ''
  const names: Readonly<Record<string, string>> = { Edg: 'Edge', OPR: 'Opera', 'Mac OS X': 'Mac' }
  return [browser, system]
    .filter(Boolean)
    .map((n) => names[n] ?? n)
    .join(', ')
}
