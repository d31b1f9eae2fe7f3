import type { Tank } from '@ypsometer/contract'
import { dayAfter } from '@ypsometer/core/days/days'
import { occasionsOf, type Chore, type KeptFilter, type Ticked } from '@ypsometer/core/upkeep/plan'
import { ruleText } from '@ypsometer/core/upkeep/recurrence'
import ical, { ICalCalendarMethod } from 'ical-generator'

interface Upkeep {
  readonly chores: readonly Chore[]
  readonly ticks: readonly Ticked[]
  readonly tanks: readonly Pick<Tank, 'id' | 'name' | 'place'>[]
  readonly filters: readonly KeptFilter[]
  readonly from: string
}

/** Days ahead within which the next day of a chore is looked for. */
const AHEAD = 800

/**
 * The chores as an iCalendar file: each as one event of a whole day that comes again by its rule, from the next day it
 * is due. Source: RFC 5545.
 */
export function calendarOf({ chores, ticks, tanks, filters, from }: Upkeep): string {
  const calendar = ical({
    name: 'Filter maintenance',
    prodId: { company: 'Ypsometer', product: 'Maintenance', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 3600,
  })
  for (const chore of chores) {
    const window = { from: dayAfter(from, -AHEAD), to: dayAfter(from, AHEAD), today: from }
    const next = occasionsOf(chore, ticks, window).find((o) => o.state !== 'done' && o.state !== 'skipped')
    const where = tanks.find((t) => t.id === chore.tankId)
    const what = filters.find((f) => f.tankId === chore.tankId && f.id === chore.filterId)
    if (!next || !where) continue
    const start = next.on < from ? from : next.on
    calendar
      .createEvent({
        id: `${chore.tankId}.${chore.filterId}.${chore.task}@upkeep`,
        start,
        allDay: true,
        summary: `${chore.label}: ${what?.label ?? ''}, ${where.name}`,
        description: [chore.how, chore.water, next.state === 'overdue' ? `Overdue since ${next.due}.` : null]
          .filter(Boolean)
          .join(' '),
        location: where.place || null,
      })
      .repeating(ruleText(chore.every, start))
  }
  return calendar.toString()
}
