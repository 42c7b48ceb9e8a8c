import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import { figureWords } from '../../../core/estimate/pricing/price-estimate'
import { lacksText, type Writer } from './writer'
import { dayText } from '../../../shared/words/days'
import { setUp, ink, say, dim, runs, brick, right, money, items, heading, layout } from './pdf-look'
import { summary, scenarios, ranges } from './pdf-parts'
import { workings } from './pdf-workings'

/**
 * An estimate as a document one hands to a manager: summary, scenarios, lines, assumptions, blind spots, and for its own people the
 * Workings.
 */
export const pdf: Writer = {
  format: 'pdf',
  async write(document) {
    setUp()
    const definition: TDocumentDefinitions = {
      pageSize: 'A4',
      pageMargins: [48, 52, 48, 52],
      defaultStyle: { font: 'Sans', fontSize: 9, color: ink, lineHeight: 1.15 },
      info: { title: document.title, author: document.preparedBy, creator: 'Rain Barrel' },
      footer: (page: number, pages: number) => ({
        columns: [
          say(`${document.title} · not a quote`, { color: dim, fontSize: 8 }),
          { text: `${page} of ${pages}`, alignment: 'right', color: dim, fontSize: 8 },
        ],
        margin: [48, 16, 48, 0],
      }),
      content: [
        { text: runs(document.title), font: 'Serif', fontSize: 22, margin: [0, 0, 0, 4] },
        say(
          [
            document.place,
            document.cards.map(c => [c.provider, `rate card of ${dayText(c.date)}`].filter(Boolean).join(' ')).join(', '),
            ...document.rates.map(rate => `${rate.rate} ${rate.to} for 1 ${rate.from} on ${dayText(rate.day)}`),
            document.currency,
            document.month,
            `prepared on ${dayText(document.preparedOn)}${document.preparedBy ? ` by ${document.preparedBy}` : ''}${document.version ? `, version ${document.version}` : ''}`,
            'an estimate, not a quote',
          ].join(' · '),
          { color: dim, fontSize: 8.5, margin: [0, 0, 0, 10] },
        ),
        ...(document.scenario
          ? [
              say(
                `Scenario: ${document.scenario}${document.conditions.length ? `, ${document.conditions.join(' and ')}` : ''}. Totals, target and lines are those of this scenario.`,
                { bold: true, margin: [0, 0, 0, 8] },
              ),
            ]
          : []),
        ...(document.lacks
          ? [
              say(
                `${lacksText(document.lacks, document.currency)}: the totals lack ${document.lacks.rows === 1 ? 'it' : 'them'}; the lines say why.`,
                { color: brick, margin: [0, 0, 0, 8] },
              ),
            ]
          : []),
        ...(document.note ? [say(document.note, { margin: [0, 0, 0, 8] })] : []),
        ...summary(document),
        ...scenarios(document),
        ...ranges(document),
        ...lines(document),
        ...assumptions(document),
        ...workings(document),
      ],
    }
    return new Uint8Array(await pdfmake.createPdf(definition).getBuffer())
  },
}

function lines(document: EstimateDocument): Content[] {
  const { currency, place } = document
  const isElsewhere = document.parts.some(part => part.rows.some(row => row.where && row.where !== place))
  const body: TableCell[][] = [
    [
      say('component', { color: dim }) as TableCell,
      say(isElsewhere ? 'where, payment' : 'payment', { color: dim }) as TableCell,
      ...(['upfront', 'monthly', 'effectiveMonthly', 'wholeTerm'] as const).map(name => right(figureWords[name], { color: dim })),
    ],
  ]
  for (const part of document.parts) {
    body.push([
      { ...(say(part.name || 'rows', { bold: true, fillColor: '#f1ede2', colSpan: 2 }) as object) },
      '',
      ...(['upfront', 'monthly', 'effectiveMonthly', 'wholeTerm'] as const).map(name =>
        right(money(part.figures[name], currency), { bold: true, fillColor: '#f1ede2' }),
      ),
    ])
    for (const row of part.rows) {
      const more = items([
        row.details,
        row.replaced,
        row.muted ? 'muted, not counted' : '',
        row.problem ? `not counted: ${row.problem}` : '',
        row.note,
      ])
      body.push([
        { stack: [say(row.label), say(more, { color: dim, fontSize: 7.5 })] },
        say(items([row.where === place ? '' : row.where, row.way]), { fontSize: 7.5, color: dim }) as TableCell,
        ...(['upfront', 'monthly', 'effectiveMonthly', 'wholeTerm'] as const).map(name =>
          right(row.figures && !row.muted ? money(row.figures[name], currency) : '–'),
        ),
      ])
    }
  }
  return [
    heading('Lines'),
    ...(isElsewhere ? [say(`Rows that name no place stand in ${place}.`, { color: dim, fontSize: 8, margin: [0, 0, 0, 4] })] : []),
    { table: { widths: ['*', 105, 'auto', 'auto', 'auto', 'auto'], headerRows: 1, body, dontBreakRows: true }, layout, fontSize: 8.5 },
  ]
}

function assumptions(document: EstimateDocument): Content[] {
  return [
    ...(document.assumptions.length
      ? [
          heading('Assumptions that nobody has confirmed'),
          {
            table: {
              widths: ['*', 'auto', 'auto'],
              headerRows: 1,
              body: [
                [
                  say('what', { color: dim }) as TableCell,
                  say('value', { color: dim }) as TableCell,
                  right(document.assumptions.some(a => a.effect !== null) ? 'could move the month by' : '', { color: dim }),
                ],
                ...document.assumptions.map((a): TableCell[] => [
                  say(a.label) as TableCell,
                  say(a.value) as TableCell,
                  right(a.effect === null ? '' : money(a.effect, document.currency)),
                ]),
              ],
            },
            layout,
            fontSize: 8.5,
          } as Content,
        ]
      : []),
    ...(document.moreAssumptions
      ? [say(`And ${document.moreAssumptions} more defaults that move less.`, { color: dim, fontSize: 8 })]
      : []),
    ...(document.dismissed.length
      ? [heading('Costs that were thought of and left out'), { ul: document.dismissed.map(d => say(`${d.title}: ${d.reason}`)) } as Content]
      : []),
  ]
}
