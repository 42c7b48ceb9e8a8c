import ExcelJS from 'exceljs'
import { formulaSheet } from '../../../core/estimate/documents/formula-sheet'
import { figureNames, figureOf, figureWords, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import { rowNames } from '../../../core/estimate/sheet/row-name'
import { asText, lacksText, type ExportTask, type Writer } from './writer'

const FIRST_ROW = 5
const money = '#,##0.00;[Red]−#,##0.00;–'
const ink = 'FF16231F'
const moss = 'FF17695B'
const line = { style: 'thin' as const, color: { argb: 'FFCFC9BA' } }

/**
 * An estimate as a workbook. For its own people every amount is a live formula down to the inputs and prices; a customer's has amounts that
 * only add up.
 */
export const xlsx: Writer = {
  format: 'xlsx',
  async write(document, task) {
    const book = new ExcelJS.Workbook()
    book.creator = 'Rain Barrel'
    book.created = new Date(`${document.preparedOn}T00:00:00Z`)
    book.calcProperties.fullCalcOnLoad = true
    if (document.audience === 'own') writeOwn(book, document, task)
    else writeCustomers(book, document)
    if (document.assumptions.length || document.dismissed.length) writeAssumptions(book, document)
    return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer)
  },
}

const columns = [
  'part',
  'component',
  'details',
  'where',
  'replaced there',
  'payment',
  ...figureNames.map(name => figureWords[name]),
  'note',
]

function estimateSheet(book: ExcelJS.Workbook, document: EstimateDocument) {
  const sheet = book.addWorksheet('Estimate', {
    views: [{ state: 'frozen', ySplit: FIRST_ROW - 1 }],
    pageSetup: { orientation: 'landscape', fitToPage: true, fitToHeight: 0 },
  })
  const title = sheet.addRow([asText(document.title)])
  title.font = { name: 'Georgia', size: 16, bold: true, color: { argb: ink } }
  sheet.addRow([
    asText(
      [
        document.scenario ? `scenario ${document.scenario}` : '',
        document.cards.map(c => [c.provider, `rate card of ${c.date}`].filter(Boolean).join(' ')).join(', '),
        ...document.rates.map(rate => `${rate.rate} ${rate.to} for 1 ${rate.from} on ${rate.day}`),
        document.place,
        document.currency,
        document.month,
        `whole term ${document.termYears} ${document.termYears === 1 ? 'year' : 'years'}`,
        `prepared on ${document.preparedOn}${document.preparedBy ? ` by ${document.preparedBy}` : ''}`,
        ...document.conditions,
        'not a quote',
      ]
        .filter(Boolean)
        .join(' · '),
    ),
  ])
  sheet.addRow([])
  headings(sheet, columns)
  sheet.columns.forEach((column, i) => {
    column.width = [18, 24, 48, 26, 30, 22, 13, 13, 18, 16, 16, 30][i]
    if (i >= 6 && i < 11) column.numFmt = money
  })
  return sheet
}

function headings(sheet: ExcelJS.Worksheet, names: string[]) {
  const row = sheet.addRow(names)
  row.font = { bold: true, color: { argb: moss } }
  row.eachCell(cell => {
    cell.border = { bottom: line }
    if (numeric.has(String(cell.value))) cell.alignment = { horizontal: 'right' }
  })
}
const numeric = new Set<string>([...Object.values(figureWords), 'value', 'could move the month by', 'a month, to the first'])

type Cell = ExcelJS.CellValue
const amounts = (of: (name: (typeof figureNames)[number]) => Cell) => figureNames.map(of)

/** @param figures of a row or a total, by its id or label. */
function fillEstimate(
  sheet: ExcelJS.Worksheet,
  document: EstimateDocument,
  rowFigures: (id: string, name: (typeof figureNames)[number]) => Cell,
  totals: { label: string; of: (name: (typeof figureNames)[number], rows: number[]) => Cell }[],
) {
  const counted: number[] = []
  for (const part of document.parts) {
    for (const row of part.rows) {
      const at = sheet.addRow([
        asText(part.name),
        asText(row.label),
        asText(row.details),
        asText(row.where),
        asText(row.replaced),
        asText(row.way),
        ...(row.figures && !row.muted ? amounts(name => rowFigures(row.id, name)) : amounts(() => null)),
        asText([row.muted ? 'muted, not counted' : row.problem ? `not counted: ${row.problem}` : '', row.note].filter(Boolean).join('; ')),
      ])
      if (row.figures && !row.muted) counted.push(at.number)
    }
  }
  for (const total of totals) {
    const row = sheet.addRow(['', asText(total.label), '', '', '', '', ...amounts(name => total.of(name, counted)), ''])
    row.font = { bold: true }
    row.eachCell(cell => {
      cell.border = { top: line }
    })
  }
}

function writeOwn(book: ExcelJS.Workbook, document: EstimateDocument, { estimate, prices, facts }: ExportTask) {
  const columns = priceScenarios(estimate, prices)
  const base = columns.find(column => column.scenario === (facts.scenario ?? null)) ?? columns[0]
  const rows = base!.rows.filter(row => base!.counted.has(row.id))
  const roots = [
    ...rows.flatMap(row => figureNames.map(name => figureOf(row.chosen!, name, base!.termYears))),
    ...base!.steps.flatMap(step => figureNames.map(name => step.figures[name])),
    ...columns.flatMap(priced => figureNames.map(name => priced.total[name])),
  ]
  const sheet = formulaSheet(roots, { inputSheet: 'Inputs', stepSheet: 'Workings', firstRow: FIRST_ROW })
  const live = (working: Parameters<typeof sheet.cellOf>[0], value: string): Cell => ({
    formula: sheet.cellOf(working),
    result: Number(value),
  })
  const figuresOf = new Map(document.parts.flatMap(part => part.rows).map(row => [row.id, row.figures]))

  const first = estimateSheet(book, document)
  fillEstimate(
    first,
    document,
    (id, name) => live(figureOf(base!.byId.get(id)!.chosen!, name, base!.termYears), figuresOf.get(id)![name]),
    [
      ...base!.steps.map((step, i) => ({
        label: step.label,
        of: (name: (typeof figureNames)[number]) => live(step.figures[name], document.summary[i + 1]!.figures[name]),
      })),
      { label: totalLabel(document), of: name => live(base!.total[name], document.summary.at(-1)!.figures[name]) },
    ],
  )
  if (document.columns.length) {
    const scenarios = book.addWorksheet('Scenarios')
    scenarios.addRow(['Scenarios, totals. A difference is taken over the rows that both can price.'])
    scenarios.addRow([])
    scenarios.addRow([])
    headings(scenarios, ['scenario', ...figureNames.map(name => figureWords[name]), 'a month, to the first', 'not counted'])
    columns.forEach((priced, i) => {
      const { name, figures, difference, lacks } = document.columns[i]!
      scenarios.addRow([
        asText(name),
        ...amounts(figure => live(priced.total[figure], figures[figure])),
        difference === null ? null : Number(difference.effectiveMonthly),
        lacks ? lacksText(lacks, document.currency) : '',
      ])
    })
    scenarios.columns.forEach((column, i) => {
      column.width = i ? (i > 6 ? 44 : 18) : 36
      if (i && i < 7) column.numFmt = money
    })
  }
  const nameOf = rowNames(estimate.components)
  const inputs = book.addWorksheet('Inputs', { views: [{ state: 'frozen', ySplit: FIRST_ROW - 1 }] })
  inputs.addRow(['Inputs and prices. Change a number here and every amount follows.'])
  inputs.addRow([])
  inputs.addRow([])
  headings(inputs, ['what', 'value', 'unit', 'from'])
  for (const { label, value, unit, source, ref } of sheet.inputs)
    inputs.addRow([
      asText(label),
      value,
      asText(unit),
      asText(source || (ref ? (nameOf.get(ref.slice(0, ref.lastIndexOf('.'))) ?? '') : '')),
    ])
  inputs.columns.forEach((column, i) => {
    column.width = [44, 18, 18, 48][i]
  })
  const workings = book.addWorksheet('Workings', { views: [{ state: 'frozen', ySplit: FIRST_ROW - 1 }] })
  workings.addRow(['Workings, step by step: each line uses lines above it and the inputs.'])
  workings.addRow([])
  workings.addRow([])
  headings(workings, ['step', 'value', 'unit', ''])
  for (const { label, formula, value, unit, own } of sheet.steps)
    workings.addRow([asText(label), { formula, result: value }, asText(unit), own ? 'uplift' : ''])
  workings.columns.forEach((column, i) => {
    column.width = [64, 20, 18, 14][i]
  })
}

/** Amounts as they are, and sums over them: nothing of how a price came about. */
function writeCustomers(book: ExcelJS.Workbook, document: EstimateDocument) {
  const sheet = estimateSheet(book, document)
  const figuresOf = new Map(document.parts.flatMap(part => part.rows).map(row => [row.id, row.figures]))
  const column = (name: (typeof figureNames)[number]) => String.fromCharCode('G'.charCodeAt(0) + figureNames.indexOf(name))
  const [total, ...before] = [...document.summary].reverse()
  fillEstimate(sheet, document, (id, name) => Number(figuresOf.get(id)![name]), [
    ...before.reverse().map(({ label, figures }) => ({ label, of: (name: (typeof figureNames)[number]) => Number(figures[name]) })),
    {
      label: totalLabel(document),
      of: (name, rows) =>
        before.length || !rows.length
          ? Number(total!.figures[name])
          : { formula: `SUM(${rows.map(row => `${column(name)}${row}`).join(',')})`, result: Number(total!.figures[name]) },
    },
  ])
}

const totalLabel = (document: EstimateDocument) =>
  `${document.summary.at(-1)!.label}${document.lacks ? `, ${lacksText(document.lacks, document.currency)}` : ''}`

function writeAssumptions(book: ExcelJS.Workbook, document: EstimateDocument) {
  const sheet = book.addWorksheet('Assumptions')
  headings(sheet, ['assumption that nobody has confirmed', 'value', 'could move the month by'])
  for (const { label, value, effect } of document.assumptions)
    sheet.addRow([asText(label), asText(value), effect === null ? '' : Number(effect)])
  if (document.moreAssumptions) sheet.addRow([`and ${document.moreAssumptions} more that move less`])
  sheet.addRow([])
  headings(sheet, ['blind spot that was dismissed', 'because', ''])
  for (const { title, reason } of document.dismissed) sheet.addRow([asText(title), asText(reason), ''])
  sheet.columns.forEach((column, i) => {
    column.width = [44, 60, 22][i]
    if (i === 2) column.numFmt = money
  })
}
