import type { Here } from '@ypsometer/contract'
import { UserRound } from 'lucide-react'
import { useOthersAt, usePresence } from '../api/presence'
import { fieldWords } from '../figures/fieldWords'

/** Who else is at this model or tank now, and in which field; the others are told the same of this page. */
export function Present({ at }: { readonly at: string }) {
  usePresence(at)
  const others = useOthersAt(at)
  if (!others.length) return null
  return (
    <p role="status" className="flex flex-wrap gap-x-3 text-[0.9rem]">
      {byPerson(others).map(([name, here]) => (
        <span key={name} className="text-primary flex items-center gap-1">
          <UserRound size={14} aria-hidden="true" />
          <span>
            <strong>{name}</strong> is here{here.field && `, at ${fieldWords(here.field)}`}
          </span>
        </span>
      ))}
    </p>
  )
}

/** A person in two windows is one person: where they have a field open, if anywhere. */
function byPerson(others: readonly Here[]): [string, Here][] {
  const people = new Map<string, Here>()
  for (const h of others) if (!people.get(h.who.name)?.field) people.set(h.who.name, h)
  return [...people]
}
