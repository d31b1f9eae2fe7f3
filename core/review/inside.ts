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
  biological: 'Bio media',
  mechanical: 'Mechanical media',
  chemical: 'Chemical media',
  void: 'Settling space',
  channel: 'Flow channels',
  machinery: 'Pump and motor',
  wasted: 'Unused space',
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
            ['Volume by use', 'Litres'],
            [
              ...named.map((n): readonly SheetCell[] => [LITRES[n], litreFigure(audit, n, LITRES[n])]),
              ['Total', grossFigure(audit)],
            ],
          ),
        ]
      : text('whole', ['The inside was not measured.']),
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
    ['Bio media', of('litres'), of('litres-proposed')],
    ['Equal to good sintered media', of('kilograms'), of('kilograms-proposed')],
    ['Supports (normal stocking)', carried(normal, shipped), carried(normal, better)],
    ['Supports (heavy stocking)', carried(heavy, shipped), carried(heavy, better)],
    ['Price with media', of('price'), of('refilled')],
  ]
  const media = (which: 'shipped' | 'proposed'): string =>
    input.candidate[which]?.uses.map((u) => lowerFirst(u.name)).join(', ') ?? ''
  return {
    id: 'fills',
    title: better ? 'Supplied and recommended media' : 'Supplied',
    blocks: [
      ...table(
        'page',
        better ? ['', 'Supplied', 'Recommended'] : ['', 'Supplied'],
        better ? rows : rows.map((r) => r.slice(0, 2)),
        true,
      ),
      ...(media('shipped') ? text('whole', [`Supplied, in flow order: ${media('shipped')}.`]) : []),
      ...(better && media('proposed') ? text('whole', [`Recommended: ${media('proposed')}.`]) : []),
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
  if (!path) return { id: 'path', title: 'Flow path', blocks: [] }
  const { outcome, findings } = path
  return {
    id: 'path',
    title: 'Flow path',
    blocks: [
      ...findings.flatMap((f, i) =>
        text(
          i < MOST_FOUND ? 'page' : 'whole',
          f.sentence,
          f.rule.severity === 'fault' ? 'against' : 'caution',
        ),
      ),
      ...(findings.length ? [] : text('page', ['No problems in the layer order.'], 'for')),
      ...numbers('page', meetsFigure(outcome)),
      ...numbers('whole', unstrainedFigure(outcome)),
      ...table(
        'whole',
        ['Layer, in flow order', 'Bypass', 'Head loss', 'Contact time'],
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
    title: 'Teardown',
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
        : text('whole', ['No teardown yet.'])),
      ...(facts.omits?.length
        ? text('page', [`Missing from the box: ${facts.omits.join(', ')}.`], 'against')
        : []),
      ...(parts.length ? text('page', suits(parts).reason.sentence, suits(parts).reason.tone) : []),
      ...wrong.flatMap((w) => text('whole', [w.says], w.marked ? 'note' : 'caution')),
      ...(safe.length ? text('whole', [`Only fit one way: ${safe.map(placeWords).join('; ')}.`]) : []),
      ...numbers(
        'whole',
        named('Access to the pre-filter', of('pre-seconds')),
        named('Access to the media', of('media-seconds')),
        figureIn(of('weight')),
      ),
      ...(photos.length ? [{ from: 'whole' as const, kind: 'photos' as const, photos }] : []),
    ],
  }
}
