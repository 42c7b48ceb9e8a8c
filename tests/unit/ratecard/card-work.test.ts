import { expect, it } from 'vitest'
import { cardColumns } from '../../../core/ratecard/card-columns'
import { cardFromTable } from '../../../core/ratecard/card-table'
import { cardToTable } from '../../../core/ratecard/card-to-table'
import { compareCards } from '../../../core/ratecard/compare-cards'
import { chargedFor, describeLine } from '../../../core/ratecard/describe'
import { meters, units, unitWords } from '../../../core/ratecard/meters'
import { rateCardSchema, type RateCard } from '../../../core/ratecard/rate-card'
import { brackwaterCard, brackwaterNextCard, larkfieldCard, pierHouseCard } from '../../../demo/rate-cards'

const asCsvHasIt = (card: RateCard) =>
  cardToTable(card).map(line => Object.fromEntries(cardColumns.map(column => [column, line[column] ?? ''])))

it('goes into a table and comes back the same', () => {
  for (const card of [brackwaterCard, larkfieldCard, pierHouseCard])
    expect(cardFromTable(asCsvHasIt(card))).toEqual({ card: rateCardSchema.parse(card) })
})

it('refuses a table line by line, each with its column', () => {
  const lines = asCsvHasIt(pierHouseCard)
  const at = (sku: string) => lines.findIndex(l => l.sku === sku) + 2
  const price = (meter: string) => lines.find(l => l.row === 'price' && l.meter === meter)!
  price('transfer-out-gb').price = '-3'
  price('load-balancer-hour').unit = 'fortnight'
  price('snapshot-gb-month').sku = price('share-gb-month').sku!
  lines.push({ ...lines[0]!, row: 'tier', sku: 'NOWHERE', from: '5', price: '1' }, { ...lines[0]!, row: 'prize' })
  const read = cardFromTable(lines)
  const problems = 'problems' in read ? read.problems : []
  expect(problems.map(p => `${p.line} ${p.column}`)).toEqual(
    expect.arrayContaining([
      `${at(price('transfer-out-gb').sku!)} price`,
      `${at(price('load-balancer-hour').sku!)} unit`,
      `${lines.length} sku`,
      `${lines.length + 1} row`,
    ]),
  )
  expect(problems.some(p => p.column === 'sku' && p.message.includes('appears twice'))).toBe(true)
  expect(cardFromTable([])).toEqual({
    problems: expect.arrayContaining([expect.objectContaining({ message: expect.stringContaining('no line that names the card') })]),
  })
})

it('refuses gaps and overlaps in tiers, commitments without a term, unknown units, in JSON too', () => {
  const refuse = (change: (card: RateCard) => void) => {
    const card = structuredClone(brackwaterCard)
    change(card)
    const read = rateCardSchema.safeParse(card)
    return read.success ? [] : read.error.issues.map(i => `${i.path.join('.')}: ${i.message}`)
  }
  const out = brackwaterCard.prices.findIndex(p => p.meter === 'transfer-out-gb')
  expect(
    refuse(c => {
      c.prices[out]!.tiers[0]!.to = '9000'
    })[0],
  ).toContain(`prices.${out}.tiers`)
  expect(
    refuse(c => {
      c.prices[out]!.tiers[0]!.to = '11000'
    })[0],
  ).toContain(`prices.${out}.tiers`)
  expect(
    refuse(c => {
      c.prices[out]!.tiers[0]!.to = '10240'
    }),
  ).toEqual([])
  expect(
    refuse(c => {
      c.prices[0]!.commitments![0]!.years = 0 as 1
    })[0],
  ).toContain('prices.0.commitments.0.years')
  expect(
    refuse(c => {
      c.prices[0]!.unit = 'Furlongs' as 'Hours'
    })[0],
  ).toContain('prices.0.unit')
})

it('tells what is dearer, cheaper, new, gone or under other terms, whatever order keys are held in', () => {
  const changes = compareCards(brackwaterCard, brackwaterNextCard)
  const of = (change: string) => changes.filter(c => c.change === change)
  expect(of('new').map(c => c.words)).toContain('Cache 48 GB in Low Coast: cache node hour, per Hours')
  expect(of('gone').every(c => c.words.startsWith('Disks plain, old'))).toBe(true)
  expect(of('other terms').every(c => c.sku.includes('TRANSFEROUT'))).toBe(true)
  expect(of('cheaper').every(c => Number(c.share) < 0 && c.words.startsWith('Servers'))).toBe(true)
  expect(of('dearer').every(c => Number(c.after) > Number(c.before))).toBe(true)
  const reordered = JSON.parse(JSON.stringify(brackwaterCard), (_, value: unknown) =>
    value && typeof value === 'object' && !Array.isArray(value) ? Object.fromEntries(Object.entries(value).reverse()) : value,
  ) as RateCard
  expect(compareCards(brackwaterCard, reordered)).toEqual([])
})

it('says every SKU of the demo in plain words, which tell them apart', () => {
  for (const card of [brackwaterCard, larkfieldCard, pierHouseCard]) {
    const words = card.prices.map(line => describeLine(line, card))
    expect(new Set(words).size).toBe(words.length)
    expect(words.every(w => /^[\p{L}\p{N}(]/u.test(w) && !w.includes('null') && !w.includes('undefined'))).toBe(true)
  }
  const line = brackwaterCard.prices.find(({ sku }) => sku === 'BW-LOWCOAST-SERVERHOUR-OTTER6X24')!
  expect(describeLine(line, brackwaterCard)).toBe('Servers otter-6x24 in Low Coast: running, hours')
})

it('knows what is charged for existing and what for use', () => {
  const charged = (meter: string) => chargedFor(brackwaterCard.prices.find(p => p.meter === meter)!)
  expect([
    charged('gateway-hour'),
    charged('gateway-gb'),
    charged('function-call'),
    charged('key-month'),
    charged('queue-message'),
  ]).toEqual(['existing', 'use', 'use', 'existing', 'use'])
})

it('carries every kind in two clouds and at least 150 SKUs each', () => {
  expect(brackwaterCard.prices.length).toBeGreaterThanOrEqual(150)
  expect(larkfieldCard.prices.length).toBeGreaterThanOrEqual(150)
  const used = new Set([...brackwaterCard.prices, ...larkfieldCard.prices].map(p => p.meter))
  expect(Object.keys(meters).filter(meter => !used.has(meter))).toEqual([])
})

it('says units as one says them', () => {
  const said = Object.fromEntries(units.map(unit => [unit, unitWords(unit)]))
  expect(said).toEqual({
    Hours: 'hour',
    'GB-Months': 'GB-month',
    GB: 'GB',
    TB: 'TB',
    'GB-Hours': 'GB-hour',
    'GB-Seconds': 'GB-second',
    Requests: 'request',
    '1000 Requests': '1000 requests',
    '1000000 Requests': '1000000 requests',
    'IOPS-Months': 'IOPS-month',
    'MBps-Months': 'MBps-month',
    'vCPU-Hours': 'vCPU-hour',
    Minutes: 'minute',
    Users: 'user',
    Seats: 'seat',
    Cores: 'core',
    Servers: 'server',
    Units: 'unit',
    Metrics: 'metric',
    Alarms: 'alarm',
    Keys: 'key',
    Certificates: 'certificate',
    Messages: 'message',
    '1000 Objects': '1000 objects',
    'Share of Spend': 'share of spend',
  })
})
