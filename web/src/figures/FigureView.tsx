import type { Figure } from '@ypsometer/core/figures/figure'
import { Num } from './Num'
import { usePanel } from './usePanel'
import { Symbols } from './Symbols'
import { Mark, PROVENANCE_MEANING, PROVENANCE_WORDS } from './Provenance'
import { Sheet } from './Sheet'

interface Props {
  readonly figure: Figure
  readonly size?: 'md' | 'lg'
  readonly unit?: string
  /** The mark without its word, for tables whose heading says it. */
  readonly bare?: boolean
  /** In a dense table: the number underlined with dots and its mark; the word is in its description and its working. */
  readonly inline?: boolean
  /** Within a sentence, which tells the origin in words: no mark. */
  readonly said?: boolean
  /** With a plus where it is one. */
  readonly signed?: boolean
  readonly digits?: number
  readonly className?: string
}

/** A number that can be asked where it came from: click, Enter or Space opens its working. */
export function FigureView({
  figure,
  size = 'md',
  unit,
  bare,
  inline,
  said,
  signed,
  digits,
  className = '',
}: Props) {
  const working = useWorking<HTMLButtonElement>(figure)
  const shown = unit ?? figure.unit
  const water = figure.provenance === 'measured' && figure.dimension === 'flow'
  return (
    <>
      <button
        ref={working.anchor}
        type="button"
        className={`group relative z-10 cursor-pointer text-left ${inline ? 'decoration-secondary whitespace-nowrap max-[380px]:whitespace-normal underline decoration-dotted underline-offset-3 hover:decoration-solid' : 'inline-flex flex-wrap items-baseline gap-x-2'} ${className}`}
        {...working.props}
      >
        {signed && figure.value >= 0 && <span className="num">+</span>}
        <Num
          si={figure.value}
          dimension={figure.dimension}
          uncertainty={figure.uncertainty}
          interval={figure.interval}
          className={`${size === 'lg' ? 'text-[2rem] leading-none font-semibold' : inline && !bare ? '' : 'font-medium'} ${water ? 'text-primary' : ''}`}
          {...(digits && { digits })}
          {...(shown && { unit: shown })}
        />
        {inline ? (
          !said && (
            <span className="muted ml-1 text-[0.72rem]">
              <Mark of={figure.provenance} />
            </span>
          )
        ) : (
          <span className="muted inline-flex items-baseline gap-1 text-[0.8rem] whitespace-nowrap underline decoration-dotted underline-offset-3 group-hover:decoration-solid">
            <Mark of={figure.provenance} />
            <span className={bare ? 'sr-only' : ''}>{PROVENANCE_WORDS[figure.provenance]}</span>
          </span>
        )}
        {figure.assumed && <span className="muted text-[0.8rem] italic"> assumed</span>}
      </button>
      {working.panel}
    </>
  )
}

/** Opener of a figure's working: the props of anything that can be pressed, and the panel to put beside it. */
export function useWorking<E extends HTMLElement | SVGElement>(figure: Figure) {
  const { anchor, props, panel } = usePanel<E>()
  return {
    anchor,
    props: { ...props, title: `${PROVENANCE_WORDS[figure.provenance]}: show the working` },
    panel: panel(`Working of ${figure.label.toLowerCase()}`, figure.label, () => <Working figure={figure} />),
  }
}

function Working({ figure }: { readonly figure: Figure }) {
  const shown = figure.unit
  return (
    <>
      <p className="muted mt-1">
        <Mark of={figure.provenance} /> {PROVENANCE_MEANING[figure.provenance]}
      </p>
      {figure.assumed && <p className="mt-2">Assumed: {figure.assumed}.</p>}
      {figure.conditions && <p className="mt-2">Conditions: {figure.conditions.join(' · ')}</p>}
      {figure.formula && (
        <p className="num bg-base-200 mt-2 px-2 py-1.5">
          <Symbols text={figure.formula} />
        </p>
      )}
      {figure.working && figure.working.length > 0 && (
        <Sheet className="mt-1">
          {figure.working.map((w, i) => (
            <tr key={i}>
              <td className="num font-medium whitespace-nowrap">
                <Symbols text={w.symbol} />
              </td>
              <td>
                {w.label}
                {w.provenance && (
                  <span
                    className="muted ml-1.5 inline-flex align-[-1px]"
                    title={PROVENANCE_WORDS[w.provenance]}
                  >
                    <Mark of={w.provenance} />
                    <span className="sr-only">{PROVENANCE_WORDS[w.provenance]}</span>
                  </span>
                )}
              </td>
              <td className="r">
                <Num si={w.value} dimension={w.dimension} {...(w.unit && { unit: w.unit })} />
              </td>
            </tr>
          ))}
        </Sheet>
      )}
      {figure.interval ? (
        <p className="muted mt-2">
          95 %: <Num si={figure.interval[0]} dimension={figure.dimension} {...(shown && { unit: shown })} />{' '}
          to <Num si={figure.interval[1]} dimension={figure.dimension} {...(shown && { unit: shown })} />. ±
          is the wider half.
        </p>
      ) : (
        figure.uncertainty !== undefined && <p className="muted mt-2">± covers 95 % of likely values.</p>
      )}
      {figure.source && <p className="muted mt-1">Source: {figure.source}.</p>}
    </>
  )
}
