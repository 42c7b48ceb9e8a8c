import type { Content, TableCell } from 'pdfmake/interfaces'
import {
  adjustmentWords,
  causeWords,
  upliftWords,
  type CentreStatement,
  type MonthStatements,
} from '../../../core/allocation/statements/month-statements'
import { ONE, quotientText, roundScaled, scaled, scaledText } from '../../../core/money/scaled'
import { changeShareOf } from '../../../core/money/share'
import { Decimal } from '../../../core/money/decimal'
import { dayText, monthText } from '../../../shared/words/days'
import { measureNames } from '../../../shared/words/table-heads'
import { dim, layout, money, pdfFile, right, runs, say, shortNumber } from '../estimate/pdf-look'

/** The statements of a month: one cost centre and currency to a page. */
export function statementsPdf(month: MonthStatements, owner: (id: string) => string): Promise<Uint8Array> {
  const title = `Statements of ${monthText(month.month)}`
  const content = month.statements.length
    ? month.statements.flatMap((one, at) => statement(one, month, owner, at > 0))
    : [say(`Nothing landed on these cost centres in ${monthText(month.month)}.`)]
  return pdfFile(title, `${title} · ${stateWords(month)}`, content)
}

const stateWords = ({ closed, measure }: MonthStatements) =>
  [
    measureNames[measure],
    closed ? `closed on ${dayText(closed.closedAt.slice(0, 10))}${closed.purpose ? `, ${closed.purpose}` : ''}` : 'draft',
  ].join(' · ')

function statement(one: CentreStatement, month: MonthStatements, owner: (id: string) => string, isNext: boolean): Content[] {
  const { centre, currency, lines, total, adjustments, toBear, uplifts, before, unitCosts } = one
  const facts = [
    monthText(month.month),
    centre.code ? `code ${centre.code}` : '',
    centre.owner ? `owner ${owner(centre.owner)}` : 'no owner',
    currency,
    stateWords(month),
  ]
  const head = (text: string): TableCell => say(text, { color: dim }) as TableCell
  const sum = (text: string, amount: string): TableCell[] => [
    say(text, { bold: true }) as TableCell,
    '',
    right(money(amount, currency), { bold: true }),
  ]
  const body: TableCell[][] = [[head('line'), head('how'), right(currency, { color: dim })]]
  for (const line of lines)
    body.push(
      line.kind === 'direct'
        ? [say(line.service ?? 'no service') as TableCell, head('direct'), right(money(line.amount, currency))]
        : [say(line.pool) as TableCell, head(shareWords(line, currency)), right(money(line.amount, currency))],
    )
  body.push(sum(adjustments.length ? `Part of the bill of ${monthText(month.month)}` : 'To bear', total))
  for (const { month: of, cause, lines: parts } of adjustments)
    for (const part of parts)
      body.push([
        say(adjustmentWords(part)) as TableCell,
        head(`adjustment of ${monthText(of)}: ${causeWords[cause]}`),
        right(money(part.amount, currency)),
      ])
  if (adjustments.length) body.push(sum('To bear, with adjustments', toBear))
  if (uplifts.length) {
    body.push([say('Beside the bill: uplifts on what ran', { color: dim, margin: [0, 6, 0, 0] }) as TableCell, '', ''])
    for (const own of uplifts)
      body.push([say(`${own.name}: ${own.label}`) as TableCell, head(upliftWords(inShort(own))), right(money(own.amount, currency))])
    body.push(sum('Uplifts', scaledText(uplifts.reduce((sum, { amount }) => sum + scaled(amount), 0n))))
  }
  const beside = [
    ...(month.monthBefore !== null && before !== null
      ? [beforeWords(total, { before, month: month.monthBefore, to: month.to }, currency)]
      : []),
    ...unitCosts.map(unitCostWords),
  ]
  return [
    { text: runs(centre.name), font: 'Serif', fontSize: 20, margin: [0, 0, 0, 4], ...(isNext && { pageBreak: 'before' as const }) },
    say(facts.filter(Boolean).join(' · '), { color: dim, fontSize: 8.5, margin: [0, 0, 0, 10] }),
    { table: { headerRows: 1, widths: ['*', '*', 'auto'], body }, layout },
    ...beside.map((text, at) => say(text, { color: dim, margin: [0, at ? 2 : 10, 0, 0] })),
  ]
}

/** An uplift with its quantity as one reads it. */
const inShort = ({ times, pool }: CentreStatement['uplifts'][number]) => ({
  ...{ pool, times: times && { ...times, quantity: shortNumber(new Decimal(times.quantity)) } },
})

/** The month before beside this one: neither's adjustments are in it, and a month that is not over is not compared. */
function beforeWords(total: string, { before, month, to }: { before: string; month: string; to: string | null }, currency: string): string {
  const said = `Part of the bill of ${monthText(month)}: ${money(before, currency)} ${currency}`
  if (to !== null) return `${said}; this month reaches to ${dayText(to)} only`
  const share = changeShareOf(scaled(total), scaled(before))
  const change = scaledText(scaled(total) - scaled(before))
  const sign = scaled(change) > 0n ? '+' : ''
  const percent = share === null ? '' : `, ${sign}${shortNumber(new Decimal(quotientText(scaled(share) * 100n, ONE, 1)))} %`
  return `${said}; ${sign}${money(change, currency)}${percent}`
}

/** What one of a business measure costs, with four digits. */
function unitCostWords({ measure, unit, currency, quantity, unitCost, before }: CentreStatement['unitCosts'][number]): string {
  if (unitCost === null) return `A ${unit}: not defined, since not all ${measure} of the month are told or can be priced`
  const digits = (text: string) => shortNumber(new Decimal(scaledText(roundScaled(scaled(text), 4))))
  const then = before === null ? '' : `; ${digits(before)} the month before`
  return `A ${unit}, of ${shortNumber(new Decimal(quantity ?? '0'))} ${measure}, with what lies below: ${digits(unitCost)} ${currency}${then}`
}

/** How a share came about: the base and the part of it are there for those who may see pools. */
function shareWords(line: Extract<CentreStatement['lines'][number], { kind: 'share' }>, currency: string): string {
  const whole = line.ofPool === null ? 0n : scaled(line.ofPool)
  const part = whole === 0n ? '' : `${quotientText(scaled(line.amount) * 100n, whole, 1)} % `
  const ofPool = line.ofPool === null ? [] : [`${part}of ${money(line.ofPool, currency)}`]
  return [...ofPool, line.label, ...(line.note ? [line.note] : [])].join('; ')
}
