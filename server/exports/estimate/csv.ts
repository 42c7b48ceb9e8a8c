import Papa from 'papaparse'
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { roundText } from '../../../core/money/amount-text'
import { asText, lacksText, type Writer } from './writer'

/** Rows and totals as CSV: amounts with every digit, in one currency that a column names. */
export const csv: Writer = {
  format: 'csv',
  write(document) {
    const header = [
      'part',
      'component',
      'details',
      'where',
      'replaced there',
      'payment',
      'counted',
      ...figureNames.map(name => figureWords[name]),
      'currency',
      'note',
    ]
    const figures = (of: Record<(typeof figureNames)[number], string> | null) => figureNames.map(name => (of ? roundText(of[name]) : ''))
    const rows = document.parts.flatMap(part =>
      part.rows.map(row => [
        ...[part.name, row.label, row.details, row.where, row.replaced, row.way].map(asText),
        row.muted ? 'no' : row.problem ? `no: ${row.problem}` : 'yes',
        ...figures(row.figures),
        document.currency,
        asText(row.note),
      ]),
    )
    const lines = (list: { label: string; figures: Record<(typeof figureNames)[number], string> }[]) =>
      list.map(({ label, figures: of }) => ['', asText(label), '', '', '', '', '', ...figures(of), document.currency, ''])
    const facts = [
      [
        `${document.title}${document.scenario ? `, scenario ${document.scenario}` : ''}, ${document.cards.map(c => [c.provider, `rate card of ${c.date}`].filter(Boolean).join(' ')).join(', ')}${document.rates.map(r => `, ${r.rate} ${r.to} for 1 ${r.from} on ${r.day}`).join('')}, prepared on ${document.preparedOn}, whole term ${document.termYears} years, not a quote`,
      ].map(asText),
    ]
    const scenarios = document.columns.map(({ name, figures: of, lacks }) => ({
      label: `scenario ${name}${lacks ? `, ${lacksText(lacks, document.currency)}` : ''}`,
      figures: of,
    }))
    const summary = document.summary.map((line, i, all) =>
      i === all.length - 1 && document.lacks ? { ...line, label: `${line.label}, ${lacksText(document.lacks, document.currency)}` } : line,
    )
    return new TextEncoder().encode(
      Papa.unparse([header, ...rows, ...lines(summary), ...lines(scenarios), ...facts], { newline: '\r\n' }) + '\r\n',
    )
  },
}
