import type { Content } from 'pdfmake/interfaces'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import { Decimal } from '../../../core/money/decimal'
import { evaluate, stretchesOf, type Working } from '../../../core/working/working'
import { workingSigns } from '../../../shared/words/working-signs'
import { shortNumber, together, say, dim, ink } from './pdf-look'

/** A tree as lines of words and figures, deeper ones further in. One text a line: a large estimate has thousands of them. */
function workingLines(working: Working, depth: number): Content[] {
  if (working.op === 'input' || depth > 9) return []
  const { parts } = working
  // of many alike, such as the months of a horizon, the first and the last are told in full
  const isBetween = (i: number) => parts.length > MOST_PARTS && i > 0 && i < parts.length - 1
  return [
    workingLine(working, depth),
    ...parts.flatMap((part, i) =>
      !isBetween(i) ? workingLines(part, depth + 1) : part.op === 'input' ? [] : [workingLine(part, depth + 1)],
    ),
  ]
}

const MOST_PARTS = 12

function workingLine(working: Exclude<Working, { op: 'input' }>, depth: number): Content {
  const value = (part: Working) => shortNumber(evaluate(part))
  const text =
    working.op === 'tiered'
      ? stretchesOf(working, ...(working.parts.map(evaluate) as [Decimal, Decimal]))
          .map(
            s =>
              `${together(`${shortNumber(s.units)} ${working.unit} × ${shortNumber(new Decimal(s.price))}`)} ${together(`(${s.label})`)}`,
          )
          .join(' + ') || `0 ${working.unit}`
      : working.parts.length > MOST_PARTS
        ? `${working.parts.length} parts`
        : working.parts.map(part => together(`${value(part)}${part.op === 'input' ? ` ${part.label}` : ''}`)).join(workingSigns[working.op])
  return say(`${together(working.label)}: ${text}${working.op === 'tiered' ? `, ${working.source}` : ''} = ${value(working)}`, {
    margin: [depth * 9, 0.5, 0, 0.5],
    fontSize: 7.5,
    color: depth ? dim : ink,
    bold: depth === 0,
  })
}

/**
 * An estimate of more rows than this tells how those that cost most were made: nobody reads two hundred pages, and the workbook has all.
 */
const ALL_WORKINGS = 50
const MOST_WORKINGS = 20

/** The Workings of each row, of the largest alone where there are many. */
export function workings(document: EstimateDocument): Content[] {
  const { workings: all, currency } = document
  if (!all.length) return []
  const most = new Set(
    all.length <= ALL_WORKINGS ? all : [...all].sort((a, b) => evaluate(b.working).cmp(evaluate(a.working))).slice(0, MOST_WORKINGS),
  )
  const which = most.size === all.length ? 'each row' : `the ${most.size} rows that cost most of ${all.length}`
  return [
    { text: 'Workings', font: 'Serif', fontSize: 16, pageBreak: 'before', margin: [0, 0, 0, 4] },
    say(
      `How the effective monthly amount of ${which} was made, in ${currency}.${most.size === all.length ? '' : ' The workbook has those of every row.'}`,
      { color: dim, margin: [0, 0, 0, 6] },
    ),
    ...all
      .filter(one => most.has(one))
      .flatMap(({ label, working }): Content[] => [say(label, { bold: true, margin: [0, 8, 0, 2] }), ...workingLines(working, 0)]),
  ]
}
