import { lowerFirst, type Figure } from '../figures'
import { contactFigure, headFigure, meetsFigure, bypassFigure, unstrainedFigure } from '../path'
import { foolproof, placeWords, suits, wrongWays } from '../teardown/placing'
import { capacityFigure } from '../tanks'
import { grossFigure, LITRE_NAMES, litreFigure, type LitreName } from '../volumes'
import type { SheetCell, Section } from './blocks'
import type { ReviewInput } from './input'
import { figureIn, numbers, rowsOf, table, text } from './make'

/** Uses of the litres, as a reader is told. */
const LITRES: Readonly<Record<LitreName, string>> = {
  biological: 'Biological media',
  mechanical: 'Mechanical media',
  chemical: 'Chemical media',
  void: 'A void on purpose',
  channel: 'Flow channels',
  machinery: 'Machinery',
  wasted: 'Wasted',
}

export function insideSection({ audit }: ReviewInput): Section {
  const named = audit ? LITRE_NAMES.filter((n) => audit.byName[n] > 0) : []
  return {
    id: 'inside',
    title: 'Inside, to scale',
    blocks: audit
      ? [
          { from: 'page', kind: 'drawing' },
          ...table(
            'whole',
            ['What the litres are', 'Litres'],
            [
              ...named.map((n): readonly SheetCell[] => [LITRES[n], litreFigure(audit, n, LITRES[n])]),
              ['Total', grossFigure(audit)],
            ],
          ),
        ]
      : text('whole', ['Nobody has measured the inside.']),
  }
}

export function fillsSection(input: ReviewInput): Section {
  const of = rowsOf(input)
  const { shipped, proposed } = input.assessment.verdict
  const normal = input.stock.find((s) => s.code === 'normal')
  const heavy = input.stock.find((s) => s.code === 'heavy')
  const carried = (stock: typeof normal, as: typeof shipped): Figure | null =>
    stock && as ? capacityFigure(as, stock, input.candidate.claimedMax) : null
  const better = proposed?.fill ?? null
  const rows: readonly (readonly SheetCell[])[] = [
    ['Flow', of('flow'), of('flow-proposed')],
    ['Biological media', of('litres'), of('litres-proposed')],
    ['Worth, of good sintered media', of('kilograms'), of('kilograms-proposed')],
    ['Carries, normally stocked', carried(normal, shipped), carried(normal, better)],
    ['Carries, heavily stocked', carried(heavy, shipped), carried(heavy, better)],
    ['Price with it', of('price'), of('refilled')],
  ]
  const media = (which: 'shipped' | 'proposed'): string =>
    input.candidate[which]?.uses.map((u) => lowerFirst(u.name)).join(', ') ?? ''
  return {
    id: 'fills',
    title: better ? 'As shipped, and as it could be' : 'As shipped',
    blocks: [
      ...table(
        'page',
        better ? ['', 'As shipped', 'As proposed'] : ['', 'As shipped'],
        better ? rows : rows.map((r) => r.slice(0, 2)),
        true,
      ),
      ...(media('shipped')
        ? text('whole', [`As shipped, in the order of the water: ${media('shipped')}.`])
        : []),
      ...(better && media('proposed') ? text('whole', [`As proposed: ${media('proposed')}.`]) : []),
    ],
  }
}

/** A figure by another name. */
const named = (label: string, cell: SheetCell): Figure | null => {
  const figure = figureIn(cell)
  return figure && { ...figure, id: `${figure.id}-${label}`, label }
}

/** Most findings of the order that one page holds. */
const MOST_FOUND = 3

export function pathSection({ path }: ReviewInput): Section {
  if (!path) return { id: 'path', title: 'Path of the water', blocks: [] }
  const { outcome, findings } = path
  return {
    id: 'path',
    title: 'Path of the water',
    blocks: [
      ...findings.flatMap((f, i) =>
        text(
          i < MOST_FOUND ? 'page' : 'whole',
          f.sentence,
          f.rule.severity === 'fault' ? 'against' : 'caution',
        ),
      ),
      ...(findings.length ? [] : text('page', ['Nothing is wrong with its order.'], 'for')),
      ...numbers('page', meetsFigure(outcome)),
      ...numbers('whole', unstrainedFigure(outcome)),
      ...table(
        'whole',
        ['Layer, as the water meets it', 'Goes round it', 'Head it takes', 'Time in it'],
        outcome.layers.map((l): readonly SheetCell[] => [
          l.placed.medium.name,
          bypassFigure(l),
          { ...headFigure(l), unit: 'cm' },
          contactFigure(l),
        ]),
      ),
    ],
  }
}

export function stripSection(input: ReviewInput): Section {
  const { build, facts } = input.candidate
  const { parts, photos } = input
  const of = rowsOf(input)
  const wrong = wrongWays(parts)
  const safe = foolproof(parts)
  return {
    id: 'strip',
    title: 'Taken apart',
    blocks: [
      ...(build
        ? text(
            'page',
            [
              build.faults.length
                ? `Found on its ${build.parts} parts: ${build.faults.join('; ')}.`
                : `Nothing wrong with its ${build.parts} parts.`,
            ],
            build.faults.length ? 'caution' : 'for',
          )
        : text('whole', ['It was not taken apart.'])),
      ...(facts.omits?.length ? text('page', [`The box omits: ${facts.omits.join(', ')}.`], 'against') : []),
      ...(parts.length ? text('page', suits(parts).reason.sentence, suits(parts).reason.tone) : []),
      ...wrong.flatMap((w) => text('whole', [w.says], w.marked ? 'note' : 'caution')),
      ...(safe.length ? text('whole', [`Only fit one way: ${safe.map(placeWords).join('; ')}.`]) : []),
      ...numbers(
        'whole',
        named('To the pre-filter', of('pre-seconds')),
        named('To the media', of('media-seconds')),
        figureIn(of('weight')),
      ),
      ...(photos.length ? [{ from: 'whole' as const, kind: 'photos' as const, photos }] : []),
    ],
  }
}
