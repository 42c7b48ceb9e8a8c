import { rateCardSchema, type PriceLine, type RateCard, type ServerSize } from './rate-card'

/** A rate card as a table: one line for each of its parts, told apart by the first column. */
export const cardColumns = ['row', 'provider', 'currency', 'valid from', 'region', 'name', 'residency', 'zones', 'size', 'vcpu', 'memory gb', 'architecture', 'systems', 'disk classes', 'dedicated', 'sku', 'service', 'meter', 'variant', 'unit', 'tiering', 'from', 'to', 'price', 'free allowance', 'minimum quantity', 'minimum charge', 'charged', 'includes', 'service level', 'excludes', 'years', 'upfront', 'upfront price', 'hourly price'] as const
type Column = typeof cardColumns[number]
type Line = Partial<Record<Column, string>>

const list = (values: readonly string[] | undefined) => values?.join('; ')
const filled = (line: Line): Line => Object.fromEntries(Object.entries(line).filter(([, value]) => value !== undefined)) as Line

/** The card as lines of a table, each a record by column; a price has a line for each tier and each commitment. */
export function cardToTable(card: RateCard): Line[] {
  return [
    { row: 'card', provider: card.provider, currency: card.currency, 'valid from': card.validFrom },
    ...card.regions.map(r => ({ row: 'region', region: r.id, name: r.name, residency: r.residency, zones: r.zones?.toString() })),
    ...card.serverSizes.map(s => ({ row: 'size', size: s.size, vcpu: String(s.vcpu), 'memory gb': String(s.memoryGb), architecture: s.architecture, systems: list(s.systems), 'disk classes': list(s.diskClasses), dedicated: s.dedicated === undefined ? undefined : s.dedicated ? 'yes' : 'no' })),
    ...card.prices.flatMap(priceToLines),
  ].map(filled)
}

function priceToLines(line: PriceLine): Line[] {
  const [first, ...others] = line.tiers
  const includes = line.includes && Object.entries(line.includes).map(([key, value]) => `${key}=${value}`)
  return [
    {
      'row': 'price', 'sku': line.sku, 'service': line.service, 'meter': line.meter, 'variant': line.variant ?? undefined, 'region': line.region, 'unit': line.unit, 'tiering': line.tiering, ...first,
      'free allowance': line.freeAllowance, 'minimum quantity': line.minimumQuantity, 'minimum charge': line.minimumCharge, 'charged': line.charged, 'includes': list(includes), 'service level': line.serviceLevel, 'excludes': line.excludes,
    },
    ...others.map(tier => ({ row: 'tier', sku: line.sku, ...tier })),
    ...(line.commitments ?? []).map(c => ({ 'row': 'commitment', 'sku': line.sku, 'years': String(c.years), 'upfront': c.upfront, 'upfront price': c.upfrontPrice, 'hourly price': c.hourlyPrice })),
  ]
}

/** The apostrophe that keeps a spreadsheet program from taking a text for a formula. */
const QUOTED = /^'(?=[=+\-@])/

export type TableProblem = { line: number, column: string, message: string }

/**
 * Reads a card from lines of a table.
 * @param lines by column name; the first line after the header is line 2 of the file.
 * @returns the card, or every line that is wrong, where and why.
 */
export function cardFromTable(lines: readonly Record<string, string>[]): { card: RateCard } | { problems: TableProblem[] } {
  const problems: TableProblem[] = []
  const cards: Line[] = []
  const regions: RateCard['regions'] = []
  const serverSizes: ServerSize[] = []
  const prices = new Map<string, { line: number, price: Record<string, unknown> & { tiers: unknown[], commitments: unknown[] } }>()
  const priceLines: number[] = []
  const listed: (Record<string, unknown> & { tiers: unknown[], commitments: unknown[] })[] = []
  lines.forEach((record, index) => {
    const at = index + 2
    const cell = (column: Column) => record[column]?.trim().replace(QUOTED, '') || undefined
    const optional = (key: string, value: unknown) => value === undefined ? {} : { [key]: value }
    const items = (column: Column) => cell(column)?.split(';').map(item => item.trim()).filter(Boolean)
    const tier = () => ({ from: cell('from') ?? '', ...optional('to', cell('to')), price: cell('price') ?? '' })
    const ofSku = () => {
      const found = prices.get(cell('sku') ?? '')
      if (!found) problems.push({ line: at, column: 'sku', message: `there is no price line of the SKU «${cell('sku') ?? ''}» above it` })
      return found?.price
    }
    switch (cell('row')) {
      case 'card': return void cards.push(record)
      case 'region': return void regions.push({ id: cell('region') ?? '', name: cell('name') ?? cell('region') ?? '', ...optional('residency', cell('residency')), ...optional('zones', cell('zones') && Number(cell('zones'))) })
      case 'size': return void serverSizes.push({
        size: cell('size') ?? '', vcpu: Number(cell('vcpu') ?? NaN), memoryGb: Number(cell('memory gb') ?? NaN), ...optional('architecture', cell('architecture')), ...optional('systems', items('systems')),
        ...optional('diskClasses', items('disk classes')), ...optional('dedicated', cell('dedicated') && cell('dedicated') === 'yes'),
      })
      case 'price': {
        const includes = items('includes')?.map(item => item.split('=').map(part => part.trim()))
        const price = {
          sku: cell('sku') ?? '', service: cell('service') ?? '', meter: cell('meter') ?? '', variant: cell('variant') ?? null, region: cell('region') ?? '', unit: cell('unit') ?? '', tiering: cell('tiering') ?? 'graduated', tiers: [tier()] as unknown[], commitments: [] as unknown[],
          ...optional('freeAllowance', cell('free allowance')), ...optional('minimumQuantity', cell('minimum quantity')), ...optional('minimumCharge', cell('minimum charge')), ...optional('charged', cell('charged')),
          ...optional('includes', includes && Object.fromEntries(includes)), ...optional('serviceLevel', cell('service level')), ...optional('excludes', cell('excludes')),
        }
        const twice = prices.get(price.sku)
        if (twice) problems.push({ line: at, column: 'sku', message: `the SKU «${price.sku}» is there twice: line ${twice.line} has it too` })
        prices.set(price.sku, { line: at, price })
        priceLines.push(at)
        return void listed.push(price)
      }
      case 'tier': return void ofSku()?.tiers.push(tier())
      case 'commitment': return void ofSku()?.commitments.push({ years: Number(cell('years') ?? NaN), upfront: cell('upfront') ?? '', upfrontPrice: cell('upfront price') ?? '0', hourlyPrice: cell('hourly price') ?? '0' })
      default: problems.push({ line: at, column: 'row', message: `«${record.row ?? ''}» is none of card, region, size, price, tier, commitment` })
    }
  })
  if (cards.length !== 1) problems.push({ line: 2, column: 'row', message: cards.length ? 'the card is named more than once' : 'there is no line that names the card: provider, currency and valid from' })
  const card = { provider: cards[0]?.provider ?? '', currency: cards[0]?.currency ?? '', validFrom: cards[0]?.['valid from'] ?? '', regions, serverSizes, prices: listed.map(({ commitments, ...price }) => commitments.length ? { ...price, commitments } : price) }
  const read = rateCardSchema.safeParse(card)
  if (read.success && !problems.length) return { card: read.data }
  const columnOf: Record<string, string> = { freeAllowance: 'free allowance', minimumQuantity: 'minimum quantity', minimumCharge: 'minimum charge', serviceLevel: 'service level', tiers: 'price', commitments: 'years' }
  for (const issue of read.error?.issues ?? []) {
    if (issue.path[0] === 'prices' && issue.path[2] === 'sku' && /twice/.test(issue.message)) continue // told above, with both lines
    const [place, index, field] = issue.path.map(String)
    problems.push({ line: place === 'prices' && index !== undefined ? priceLines[Number(index)] ?? 2 : 2, column: columnOf[field ?? ''] ?? field ?? place ?? 'row', message: issue.message })
  }
  return { problems: problems.sort((a, b) => a.line - b.line) }
}
