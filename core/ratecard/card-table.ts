import { parseDecimal } from '../money/decimal'
import { nearestWord } from '../text/nearest'
import { usualPayment } from './earlier-words'
import { rateCardSchema, type RateCard, type ServerSize } from './rate-card'
import { cardColumns, EARLIER_PAID, type Line, type Column, columnNamed } from './card-columns'

/** The apostrophe that keeps a spreadsheet program from taking a text for a formula. */
const QUOTED = /^'(?=[=+\-@])/

export type TableProblem = { line: number; column: string; message: string }

/**
 * Reads a card from lines of a table.
 * @param lines by column name; the first line after the header is line 2 of the file.
 * @returns the card, or every line that is wrong, where and why.
 */
export function cardFromTable(lines: readonly Record<string, string>[]): { card: RateCard } | { problems: TableProblem[] } {
  const headings = Object.keys(lines[0] ?? {})
  const known: readonly string[] = [...cardColumns, EARLIER_PAID]
  const problems: TableProblem[] = headings
    .filter(heading => !known.includes(heading))
    .map(heading => {
      const near = nearestWord(heading, cardColumns)
      return {
        line: 1,
        column: heading || 'a heading without a name',
        message: near ? `there is no column «${heading}»: «${near}» is meant?` : `there is no column «${heading}»; leave it out`,
      }
    })
  const cardCurrency = lines.find(line => line.row?.trim() === 'card')?.currency?.trim()
  const cards: Line[] = []
  const regions: RateCard['regions'] = []
  const serverSizes: ServerSize[] = []
  const prices = new Map<
    string,
    { lines: Lines['prices'][number]; price: Record<string, unknown> & { tiers: unknown[]; commitments: unknown[] } }
  >()
  const at: Lines = { card: 2, regions: [], sizes: [], prices: [] }
  const listed: (Record<string, unknown> & { tiers: unknown[]; commitments: unknown[] })[] = []
  lines.forEach((record, index) => {
    const line = index + 2
    const cell = (column: Column) => record[column]?.trim().replace(QUOTED, '') || undefined
    const optional = (key: string, value: unknown) => (value === undefined ? {} : { [key]: value })
    const items = (column: Column) =>
      cell(column)
        ?.split(';')
        .map(item => item.trim())
        .filter(Boolean)
    const wrong = (column: string, message: string) => problems.push({ line, column, message })
    const whole = (column: Column, such: string) => {
      const text = cell(column)
      const value = text === undefined ? null : parseDecimal(text)
      if (text !== undefined && !value) wrong(column, `«${text}» is no number, such as ${such}`)
      return value?.toNumber()
    }
    const yesOrNo = (column: Column) => {
      const text = cell(column)?.toLowerCase()
      if (text !== undefined && text !== 'yes' && text !== 'no') wrong(column, `«${cell(column)!}» is neither yes nor no`)
      return text && text === 'yes'
    }
    const currency = cell('currency')
    if (cell('row') !== 'card' && currency !== undefined && currency !== cardCurrency)
      wrong(
        'currency',
        `the card is in ${cardCurrency ?? 'a currency that no line names'}, this line in ${currency}: a card has one currency; put the line into a card of its own`,
      )
    const tier = () => ({ from: cell('from') ?? '', ...optional('to', cell('to')), price: cell('price') ?? '' })
    const ofSku = () => {
      const found = prices.get(cell('sku') ?? '')
      if (!found) problems.push({ line, column: 'sku', message: `there is no price line of the SKU «${cell('sku') ?? ''}» above it` })
      return found
    }
    switch (cell('row')) {
      case 'card':
        at.card = line
        return void cards.push({ provider: cell('provider'), currency, 'valid from': cell('valid from') })
      case 'region':
        at.regions.push(line)
        return void regions.push({
          id: cell('region') ?? '',
          name: cell('name') ?? cell('region') ?? '',
          ...optional('residency', cell('residency')),
          ...optional('zones', whole('zones', '3')),
        })
      case 'size':
        at.sizes.push(line)
        return void serverSizes.push({
          size: cell('size') ?? '',
          vcpu: whole('vcpu', '4') ?? NaN,
          memoryGb: whole('memory gb', '16') ?? NaN,
          ...optional('architecture', cell('architecture')),
          ...optional('systems', items('systems')),
          ...optional('diskClasses', items('disk classes')),
          ...optional('dedicated', yesOrNo('dedicated')),
        })
      case 'price': {
        const includes = items('includes')?.map(item => item.split('=').map(part => part.trim()))
        const price = {
          sku: cell('sku') ?? '',
          service: cell('service') ?? '',
          meter: cell('meter') ?? '',
          variant: cell('variant') ?? null,
          region: cell('region') ?? '',
          unit: cell('unit') ?? '',
          tiering: cell('tiering') ?? 'graduated',
          tiers: [tier()] as unknown[],
          commitments: [] as unknown[],
          ...optional('freeAllowance', cell('free allowance')),
          ...optional('minimumQuantity', cell('minimum quantity')),
          ...optional('minimumCharge', cell('minimum charge')),
          ...optional('charged', cell('charged')),
          ...optional('includes', includes && Object.fromEntries(includes)),
          ...optional('serviceLevel', cell('service level')),
          ...optional('excludes', cell('excludes')),
        }
        const twice = prices.get(price.sku)
        if (twice)
          problems.push({ line, column: 'sku', message: `the SKU «${price.sku}» appears twice: line ${twice.lines.line} has it too` })
        const lines = { line, tiers: [line], commitments: [] }
        prices.set(price.sku, { lines, price })
        at.prices.push(lines)
        return void listed.push(price)
      }
      case 'tier': {
        const of = ofSku()
        of?.lines.tiers.push(line)
        return void of?.price.tiers.push(tier())
      }
      case 'commitment': {
        if (!cell('upfront price') && !cell('hourly price'))
          wrong('hourly price', 'the commitment has no price: give its upfront price, its hourly price or both')
        const of = ofSku()
        of?.lines.commitments.push(line)
        return void of?.price.commitments.push({
          years: whole('years', '1') ?? NaN,
          paid: usualPayment(cell('paid') ?? cell(EARLIER_PAID) ?? ''),
          upfrontPrice: cell('upfront price') ?? '0',
          hourlyPrice: cell('hourly price') ?? '0',
        })
      }
      default:
        problems.push({ line, column: 'row', message: `«${record.row ?? ''}» is none of card, region, size, price, tier, commitment` })
    }
  })
  if (cards.length !== 1)
    problems.push({
      line: 2,
      column: 'row',
      message: cards.length
        ? 'the card is named more than once'
        : 'there is no line that names the card: provider, currency and valid from',
    })
  // what is wrong with a cell is told once, at the cell
  const told = new Set(problems.map(problem => problem.line))
  const card = {
    provider: cards[0]?.provider ?? '',
    currency: cards[0]?.currency ?? '',
    validFrom: cards[0]?.['valid from'] ?? '',
    regions,
    serverSizes,
    prices: listed.map(({ commitments, ...price }) => (commitments.length ? { ...price, commitments } : price)),
  }
  const read = rateCardSchema.safeParse(card)
  if (read.success && !problems.length) return { card: read.data }
  for (const issue of read.error?.issues ?? []) {
    const found = whereIs(issue.path, at)
    if (told.has(found.line)) continue
    problems.push({ ...found, message: issue.message })
  }
  return { problems: problems.sort((a, b) => a.line - b.line) }
}

/** The lines of the file that the parts of a card came from. */
type Lines = { card: number; regions: number[]; sizes: number[]; prices: { line: number; tiers: number[]; commitments: number[] }[] }

/** Which line and column of the file a part of the card came from. */
function whereIs(path: readonly PropertyKey[], lines: Lines): { line: number; column: string } {
  const [place, index, field, inner, innerField] = path.map(String)
  if (place === 'regions' && index !== undefined)
    return { line: lines.regions[Number(index)] ?? lines.card, column: columnNamed(field, 'region') }
  if (place === 'serverSizes' && index !== undefined)
    return { line: lines.sizes[Number(index)] ?? lines.card, column: columnNamed(field, 'size') }
  const price = place === 'prices' && index !== undefined ? lines.prices[Number(index)] : undefined
  if (!price) return { line: lines.card, column: columnNamed(place, 'row') }
  const own =
    inner === undefined
      ? undefined
      : field === 'tiers'
        ? price.tiers[Number(inner)]
        : field === 'commitments'
          ? price.commitments[Number(inner)]
          : undefined
  return { line: own ?? price.line, column: columnNamed(innerField ?? field, 'row') }
}
