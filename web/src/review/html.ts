import { PROVENANCE_WORDS } from '../figures/Provenance'
import type { Block, Length } from '@ypsometer/core/review/blocks'
import { piecesOf, type Piece, type ReviewDoc } from './document'
import { cellText, figureText, sentenceIn, type Reader } from './text'

/** Parts within a single file. */
export interface Within {
  /** The section as SVG without script; null where there is none. */
  readonly drawing: string | null
  /** A photo as a data address; null where it cannot be had. */
  readonly photo: (id: string) => string | null
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}
export const escaped = (s: string): string => s.replace(/[&<>"']/g, (c) => ENTITIES[c] ?? c)
/** Somebody’s words, in whichever direction they are written. */
const words = (s: string): string =>
  s
    .split(/\n{2,}/)
    .map((p) => `<p dir="auto">${escaped(p).replace(/\n/g, '<br>')}</p>`)
    .join('\n')

const STYLE = `
:root{color-scheme:light dark;--ink:#1f2420;--paper:#f8f3ea;--rule:#d8cfb8;--soft:#5a645d;--rust:#9a3a18;--straw:#6b4e00}
@media(prefers-color-scheme:dark){:root{--ink:#e8ece6;--paper:#0f1714;--rule:#2c3a34;--soft:#a3b0a8;--rust:#ff9a6b;--straw:#e5c15a}}
*{box-sizing:border-box}body{margin:0;background:var(--paper);color:var(--ink);font:1.05rem/1.5 'Alegreya Sans',Candara,sans-serif;overflow-wrap:anywhere}
main{max-width:46rem;margin:0 auto;padding:1.5rem 1rem 4rem}h1{font-size:2rem;line-height:1.15;margin:.2rem 0}h2{font-size:1.2rem;margin:1.6rem 0 .3rem}
.soft{color:var(--soft)}.against{color:var(--rust)}.caution{color:var(--straw)}aside{border:1px solid var(--ink);padding:.5rem .8rem;margin:1rem 0}
dl{display:flex;flex-wrap:wrap;gap:.4rem 2.2rem;margin:.4rem 0}dt{font-size:.85rem;color:var(--soft)}dd{margin:0;font-variant-numeric:tabular-nums;font-weight:600}
.wide{overflow-x:auto}table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums}th,td{text-align:left;padding:.25rem .6rem .25rem 0;border-bottom:1px solid var(--rule);vertical-align:top;overflow-wrap:break-word}th{font-size:.85rem;color:var(--soft)}
figure{margin:.6rem 0}img,svg{max-width:100%;height:auto}@page{margin:15mm}@media print{main{padding:0;max-width:none}h2{break-after:avoid}tr,figure,aside{break-inside:avoid}}`

/** A review as one file that needs nothing else: no script, no address outside it. */
export function htmlOf(doc: ReviewDoc, length: Length, reader: Reader, within: Within): string {
  const of = (p: Piece): string => {
    switch (p.kind) {
      case 'title':
        return `<p class="soft" dir="auto">${escaped(p.kicker)}</p>\n<h1 dir="auto">${escaped(p.title)}</h1>\n<p class="soft">${escaped(p.sub)}</p>`
      case 'disclosure':
        return `<aside><strong>Disclosure.</strong> ${escaped(p.text)}</aside>`
      case 'erratum':
        return `<aside class="against" dir="auto">${escaped(p.text)}</aside>`
      case 'words':
        return words(p.text)
      case 'heading':
        return `<h2>${escaped(p.text)}</h2>`
      case 'block':
        return blockOf(p.block, reader, within)
      case 'buy':
        return `<h2>${escaped(p.answer)}</h2>\n${p.why ? words(p.why) : ''}`
      case 'foot':
        return `<hr>\n<p class="soft">${escaped(p.text)}</p>`
    }
  }
  const title = escaped(doc.words.title.trim() || doc.sheet.name)
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'">
<title>${title}</title>
<style>${STYLE}</style>
</head>
<body>
<main>
${piecesOf(doc, length).map(of).filter(Boolean).join('\n')}
</main>
</body>
</html>
`
}

function blockOf(b: Block, reader: Reader, { drawing, photo }: Within): string {
  switch (b.kind) {
    case 'text':
      return `<p${b.tone === 'note' ? '' : ` class="${b.tone}"`} dir="auto">${escaped(sentenceIn(b.sentence, reader))}</p>`
    case 'numbers':
      return `<dl>${b.figures
        .map(
          (f) =>
            `<div><dt>${escaped(f.label)}</dt><dd>${escaped(figureText(f, reader))} <span class="soft">${PROVENANCE_WORDS[f.provenance]}</span></dd></div>`,
        )
        .join('')}</dl>`
    case 'table': {
      const head = b.head.map((h) => `<th scope="col">${escaped(h)}</th>`).join('')
      const rows = b.rows
        .map(
          (r) =>
            `<tr>${r.map((c) => `<td dir="auto">${escaped(cellText(c, reader, b.both))}</td>`).join('')}</tr>`,
        )
        .join('\n')
      return `<div class="wide"><table><thead><tr>${head}</tr></thead>\n<tbody>${rows}</tbody></table></div>`
    }
    case 'drawing':
      return drawing
        ? `<figure>${drawing}<figcaption class="soft">Section, to scale</figcaption></figure>`
        : ''
    case 'photos':
      return b.photos
        .flatMap((p) => {
          const at = photo(p.id)
          return at
            ? [
                `<figure><img src="${escaped(at)}" alt="${escaped(p.caption)}" width="${p.width}" height="${p.height}"><figcaption class="soft" dir="auto">${escaped(p.caption)}</figcaption></figure>`,
              ]
            : []
        })
        .join('\n')
  }
}
