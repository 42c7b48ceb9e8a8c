import type { Column, Content, TableCell } from 'pdfmake/interfaces'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { Decimal, decimalText } from '../../../core/money/decimal'
import { lacksText } from './writer'
import { runs, money, say, dim, brick, moss, right, layout, hues, heading, ochre } from './pdf-look'

/** The figures, the parts, and what is to be known before one believes them. */
export function summary(document: EstimateDocument): Content[] {
  const total = document.summary.at(-1)!.figures
  const against = document.target && !document.lacks && new Decimal(total.effectiveMonthly).minus(document.target)
  const figure = (label: string, text: string): Column => ({
    stack: [
      { text: runs(money(text, document.currency)), font: 'Serif', fontSize: 17 },
      say(`${label}, ${document.currency}`, { color: dim, fontSize: 8 }),
    ],
    width: '*',
  })
  return [
    {
      columns: [
        figure('effective monthly', total.effectiveMonthly),
        figure('paid upfront', total.upfront),
        figure('first 12 months', total.firstYear),
        figure(`whole term, ${document.termYears} ${document.termYears === 1 ? 'year' : 'years'}`, total.wholeTerm),
      ],
      columnGap: 12,
      margin: [0, 4, 0, 8],
    },
    ...(against
      ? [
          say(
            `The target is ${money(document.target!, document.currency)} a month: ${against.gt(0) ? `${money(decimalText(against), document.currency)} over` : `${money(decimalText(against.abs()), document.currency)} left`}.`,
            { color: against.gt(0) ? brick : moss, margin: [0, 0, 0, 6] },
          ),
        ]
      : []),
    ...partBars(document),
    ...(document.summary.length > 1
      ? [
          {
            table: {
              widths: ['*', 'auto', 'auto', 'auto', 'auto', 'auto'],
              headerRows: 1,
              body: [
                ['', ...figureNames.map(name => right(figureWords[name], { color: dim }))],
                ...document.summary.map(({ label, figures }, i): TableCell[] => [
                  say(label, { bold: i === document.summary.length - 1 }) as TableCell,
                  ...figureNames.map(name => right(money(figures[name], document.currency), { bold: i === document.summary.length - 1 })),
                ]),
              ],
            },
            layout,
            margin: [0, 8, 0, 0],
          } as Content,
        ]
      : []),
  ]
}

/** Amounts as bars beside their names. */
function barTable(entries: { name: string; amount: Decimal; colour: string }[], currency: string): Content[] {
  const most = entries.reduce((a, { amount }) => (amount.gt(a) ? amount : a), new Decimal(0))
  if (entries.length < 2 || most.lte(0)) return []
  const width = (amount: Decimal) => Math.max(1, amount.div(most).times(230).toNumber())
  return [
    {
      table: {
        widths: [150, 240, '*'],
        body: entries.map(({ name, amount, colour }): TableCell[] => [
          say(name, { noWrap: true }) as TableCell,
          { canvas: [{ type: 'rect', x: 0, y: 1, w: width(amount), h: 9, color: colour }] },
          say(money(decimalText(amount), currency), { color: dim }) as TableCell,
        ]),
      },
      layout: { defaultBorder: false, paddingTop: () => 1.5, paddingBottom: () => 1.5, paddingLeft: () => 0 },
      fontSize: 8.5,
      margin: [0, 4, 0, 0],
    },
  ]
}

/** What each part of the workload makes of the month, largest first. */
function partBars({ parts, currency }: EstimateDocument): Content[] {
  const shown = parts
    .map(part => ({ name: part.name || 'rows', amount: new Decimal(part.figures.effectiveMonthly) }))
    .filter(part => part.amount.gt(0))
    .sort((a, b) => b.amount.cmp(a.amount))
    .slice(0, 8)
  return barTable(
    shown.map((part, i) => ({ ...part, colour: hues[i]! })),
    currency,
  )
}

/** Scenarios side by side. */
export function scenarios(document: EstimateDocument): Content[] {
  const [base] = document.columns
  if (!base) return []
  const share = (difference: string) =>
    new Decimal(base.figures.effectiveMonthly).eq(0)
      ? '–'
      : `${new Decimal(difference).div(base.figures.effectiveMonthly).times(100).round(1).toFixed().replace('-', '−')} %`
  const body: TableCell[][] = [
    [
      say('scenario', { color: dim }) as TableCell,
      ...figureNames.map(name => right(figureWords[name], { color: dim })),
      right('a month, to the first', { color: dim }),
    ],
    ...document.columns.map(({ name, figures, difference, lacks }): TableCell[] => [
      {
        stack: [
          say(name, { bold: name === document.scenario }),
          ...(lacks ? [say(lacksText(lacks, document.currency), { color: brick, fontSize: 7 })] : []),
        ],
      },
      ...figureNames.map(figure => right(money(figures[figure], document.currency))),
      right(
        difference === null
          ? ''
          : `${money(difference.effectiveMonthly, document.currency)}${lacks ? '' : `  ${share(difference.effectiveMonthly)}`}`,
      ),
    ]),
  ]
  const bars = document.columns
    .filter(column => !column.lacks)
    .map(({ name, figures }) => ({ name, amount: new Decimal(figures.effectiveMonthly), colour: name === base.name ? dim : moss }))
  return [
    heading('Scenarios'),
    ...barTable(bars, document.currency),
    { table: { widths: ['*', 'auto', 'auto', 'auto', 'auto', 'auto', 'auto'], headerRows: 1, body }, layout, fontSize: 8 },
    ...(document.columns.some(c => c.lacks)
      ? [say('A difference is taken over the rows that both can price.', { color: dim, fontSize: 7.5, margin: [0, 3, 0, 0] })]
      : []),
  ]
}

/** What the total may be. */
export function ranges(document: EstimateDocument): Content[] {
  const { ranges: found, currency } = document
  if (!found?.draws) return []
  const { from, to, counts } = found.histogram
  const most = Math.max(...counts, 1)
  const width = 460 / counts.length
  const at = (value: number) => (to > from ? ((value - from) / (to - from)) * 460 : 0)
  const bars = counts.map((n, i) => ({
    type: 'rect' as const,
    x: i * width,
    y: 60 - (n / most) * 56,
    w: Math.max(0.5, width - 1),
    h: (n / most) * 56,
    color: hues[2]!,
  }))
  const quantiles = [
    ['P10', found.p10],
    ['P50', found.p50],
    ['P90', found.p90],
  ] as const
  const marks = quantiles.map(([, value]) => ({
    type: 'line' as const,
    x1: at(value),
    x2: at(value),
    y1: 0,
    y2: 64,
    lineWidth: 1,
    lineColor: ochre,
  }))
  return [
    heading('How sure'),
    say(
      `${found.draws} draws of the inputs that are ranges. Nine of ten totals a month lie under ${money(found.p90.toFixed(4), currency)} ${currency}. Most matters: ${found.drivers
        .slice(0, 3)
        .map(d => d.label)
        .join('; ')}.`,
      { margin: [0, 0, 0, 6] },
    ),
    { canvas: [...bars, { type: 'line', x1: 0, x2: 460, y1: 60, y2: 60, lineWidth: 0.5, lineColor: dim }, ...marks] },
    {
      columns: quantiles.map(
        ([name, value]) =>
          say(`${name}  ${money(value.toFixed(4), currency)}`, {
            alignment: name === 'P10' ? 'left' : name === 'P50' ? 'center' : 'right',
          }) as Column,
      ),
      fontSize: 8,
      margin: [0, 2, 39, 0],
    },
  ]
}
