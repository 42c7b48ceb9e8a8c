import pdfmake from 'pdfmake'
import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import sans from '@fontsource/public-sans/files/public-sans-latin-400-normal.woff'
import sansBold from '@fontsource/public-sans/files/public-sans-latin-600-normal.woff'
import sansMore from '@fontsource/public-sans/files/public-sans-latin-ext-400-normal.woff'
import sansMoreBold from '@fontsource/public-sans/files/public-sans-latin-ext-600-normal.woff'
import serif from '@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff'
import type { EstimateDocument } from '../../../core/estimate/documents/document'
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { roundToMinor } from '../../../core/money/rounding'
import { Decimal, decimalText } from '../../../core/money/decimal'
import { evaluate, stretchesOf, type Working } from '../../../core/working/working'
import { sfntOf } from './sfnt'
import { lacksText, type Writer } from './writer'

const fonts = { sans: sans, 'sans-bold': sansBold, more: sansMore, 'more-bold': sansMoreBold, serif: serif }
const ink = '#16231f'
const dim = '#5d6862'
const rule = '#cfc9ba'
const moss = '#17695b'
const ochre = '#97650f'
const brick = '#a3402f'
const hues = ['#17695b', '#97650f', '#4a2a7f', '#a3402f', '#2b6ca3', '#7a8b3c', '#8f4a7a', '#5d6862']

let ready = false
function setUp() {
  if (ready) return
  for (const [name, bytes] of Object.entries(fonts)) pdfmake.virtualfs.writeFileSync(name, sfntOf(bytes))
  pdfmake.setFonts({
    Sans: { normal: 'sans', bold: 'sans-bold', italics: 'sans', bolditalics: 'sans-bold' },
    More: { normal: 'more', bold: 'more-bold', italics: 'more', bolditalics: 'more-bold' },
    Serif: { normal: 'serif', bold: 'serif', italics: 'serif', bolditalics: 'serif' },
  })
  // a document asks nothing of the network nor of the disk
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy(name => name in fonts)
  ready = true
}

/** Letters that the first font file lacks are set in the second of the same face. */
function runs(given: string): Content[] {
  const text = given.replace(/[\u2009\u202F]/g, ' ')
  return (text.match(/[\u0100-\u02AF\u1E00-\u1EFF]+|[^\u0100-\u02AF\u1E00-\u1EFF]+/gu) ?? ['']).map(part =>
    /^[\u0100-\u02AF\u1E00-\u1EFF]/u.test(part) ? { text: part, font: 'More' } : part,
  )
}
const say = (text: string, more: object = {}): Content => ({ text: runs(text), ...more })

/** A short item stays on one line. It is also laid out at once and not word by word, which a table of hundreds of rows is quicker for. */
const together = (item: string) => (item.length <= 32 ? item.replaceAll(' ', '\u00A0') : item)
const items = (list: readonly string[]) =>
  list
    .filter(Boolean)
    .flatMap(item => item.split(' · '))
    .map(together)
    .join('\u00A0· ')

const dayFormat = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
const dayWords = (day: string) => dayFormat.format(new Date(day))

function money(text: string, currency: string): string {
  const rounded = roundToMinor(new Decimal(text), currency)
  if (rounded.eq(0)) return '–'
  const [whole, fraction] = rounded.abs().toFixed(2).split('.')
  return `${rounded.lt(0) ? '−' : ''}${whole!.replace(/\B(?=(\d{3})+$)/g, '\u00A0')}.${fraction}`
}
const shortNumber = (value: Decimal) =>
  decimalText(value.round(value.abs().lt(1) ? 10 : 4)).replace(
    /^(-?)(\d+)/,
    (_, sign: string, whole: string) => `${sign ? '−' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, '\u00A0')}`,
  )

const layout = {
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.5),
  vLineWidth: () => 0,
  hLineColor: () => rule,
  paddingTop: () => 3,
  paddingBottom: () => 3,
  paddingLeft: () => 0,
  paddingRight: () => 8,
}
const right = (text: string, more: object = {}): TableCell => ({ ...(say(text, { alignment: 'right', noWrap: true, ...more }) as object) })
const heading = (text: string): Content => ({ text: runs(text), font: 'Serif', fontSize: 13, color: ink, margin: [0, 16, 0, 5] })

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
            document.cards.map(c => [c.provider, `rate card of ${dayWords(c.date)}`].filter(Boolean).join(' ')).join(', '),
            ...document.rates.map(rate => `${rate.rate} ${rate.to} for 1 ${rate.from} on ${dayWords(rate.day)}`),
            document.currency,
            document.month,
            `prepared on ${dayWords(document.preparedOn)}${document.preparedBy ? ` by ${document.preparedBy}` : ''}${document.version ? `, version ${document.version}` : ''}`,
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

function summary(document: EstimateDocument): Content[] {
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

function scenarios(document: EstimateDocument): Content[] {
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

function ranges(document: EstimateDocument): Content[] {
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

function lines(document: EstimateDocument): Content[] {
  const { currency, place } = document
  const isElsewhere = document.parts.some(part => part.rows.some(row => row.where && row.where !== place))
  const body: TableCell[][] = [
    [
      say('component', { color: dim }) as TableCell,
      say(isElsewhere ? 'where, pays how' : 'pays how', { color: dim }) as TableCell,
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

const signs = {
  sum: ' + ',
  product: ' × ',
  difference: ' − ',
  quotient: ' ÷ ',
  smaller: ', the smaller of ',
  larger: ', the larger of ',
  ceiling: ' up to a whole ',
} as const

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
        : working.parts.map(part => together(`${value(part)}${part.op === 'input' ? ` ${part.label}` : ''}`)).join(signs[working.op])
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

function workings(document: EstimateDocument): Content[] {
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
