// Each kind against a second, simpler way to work it out: plain numbers from the card's prices.
import { expect, it } from 'vitest'
import { componentKinds } from '../../../core/estimate/components'
import { newEstimate } from '../../../core/estimate/estimate'
import { brackwaterCard as card } from '../../../demo/rate-cards'
import { pricesOf, priceTest, testRows } from '../../support/test-card'

const region = 'low-coast'
const lineOf = (meter: string, variant: string | null = null) =>
  card.prices.find(p => p.meter === meter && p.variant === variant && p.region === region)!
const p = (meter: string, variant: string | null = null) => Number(lineOf(meter, variant).tiers[0]!.price)
/** Graduated tiers by counting unit stretches: another way than the product's. */
function tiered(meter: string, variant: string | null, quantity: number): number {
  const { tiers } = lineOf(meter, variant)
  return tiers.reduce((sum, tier, i) => {
    const [from, to] = [Number(tier.from), i + 1 < tiers.length ? Number(tiers[i + 1]!.from) : Infinity]
    return sum + Math.max(0, Math.min(quantity, to) - from) * Number(tier.price)
  }, 0)
}
const priced = (...rows: [string, Record<string, string>][]) =>
  priceTest({ ...newEstimate('t', card, region), components: testRows(rows) }, pricesOf(card))
function monthly(kind: string, inputs: Record<string, string>): number {
  const { totals, components } = priced([kind, inputs])
  expect(components[0]!.problems, kind).toEqual({})
  return Number(totals.effectiveMonthly)
}
const week = (days: number, hours: number) => (730 * days * hours) / 168

const cases: [kind: string, inputs: Record<string, string>, expected: () => number][] = [
  [
    'server',
    {
      size: 'otter-4x16',
      hoursPerMonth: '55 %',
      count: '3',
      peakCount: '2',
      peakHours: '5d x 10h',
      system: 'Thrumwood Server',
      host: 'dedicated host',
    },
    () => {
      const hours = 3 * 730 * 0.55 + 2 * week(5, 10)
      return hours * (p('server-hour', 'otter-4x16') + 4 * (p('system-vcpu-hour', 'Thrumwood Server') + p('dedicated-vcpu-hour')))
    },
  ],
  [
    'disk',
    { class: 'steady', storageGb: '200', count: '4', iops: '5000', mbps: '300' },
    () => 4 * (200 * p('disk-gb-month', 'steady') + 2000 * p('disk-iops-month', 'steady') + 175 * p('disk-throughput-month', 'steady')),
  ],
  [
    'disk',
    { class: 'plain', storageGb: '50', transactions: '12' },
    () => 50 * p('disk-gb-month', 'plain') + 12 * p('disk-transactions', 'plain'),
  ],
  [
    'snapshot',
    { protectedGb: '100', count: '2', changePercent: '5', daysKept: '15' },
    () => 2 * 100 * (1 + 0.05 * 14) * p('snapshot-gb-month'),
  ],
  [
    'object-storage',
    { class: 'ready', storageGb: '60000', writes: '250000', reads: '4000000' },
    () => tiered('object-gb-month', 'ready', 60_000) + 250 * p('object-write-1000', 'ready') + 4000 * p('object-read-1000', 'ready'),
  ],
  [
    'object-storage',
    { class: 'self-moving', storageGb: '1000', objectMb: '2' },
    () => 1000 * p('object-gb-month', 'self-moving') + 500 * p('object-watch-1000', 'self-moving'),
  ],
  [
    'object-storage',
    { class: 'cool', storageGb: '1000', retrievedGb: '70' },
    () => 1000 * p('object-gb-month', 'cool') + 70 * p('object-retrieval-gb', 'cool'),
  ],
  [
    'database',
    { size: 'heron-4x32', engine: 'Quillbase', storageGb: '500', zones: '2', replicas: '1', iops: '4000', backupGb: '800', count: '2' },
    () => {
      const nodes = 2 * 3
      return (
        nodes * 730 * (p('database-hour', 'heron-4x32') + 4 * p('database-engine-vcpu-hour', 'Quillbase')) +
        nodes * 500 * p('database-gb-month') +
        nodes * 1000 * p('database-iops-month') +
        Math.max(0, 800 - 2 * 500) * p('database-backup-gb-month')
      )
    },
  ],
  [
    'database',
    { size: 'otter-2x8', storageGb: '100', backupGb: '160' },
    () => 730 * p('database-hour', 'otter-2x8') + 100 * p('database-gb-month') + 60 * p('database-backup-gb-month'),
  ],
  [
    'database-tier',
    { tier: 'stream', storageGb: '80', count: '2' },
    () => 2 * (730 * p('database-tier-hour', 'stream') + 30 * p('database-tier-gb-month')),
  ],
  [
    'functions',
    { calls: '9000000', seconds: '0.35', memoryGb: '1.5', warm: '2' },
    () => 9e6 * 0.35 * 1.5 * p('function-gb-second') + 9 * p('function-call') + 2 * 1.5 * 730 * p('function-warm-gb-hour'),
  ],
  [
    'functions',
    { runsAt: 'at the edge', calls: '2000000', seconds: '0.05', memoryGb: '0.125' },
    () => 2e6 * 0.05 * 0.125 * p('function-gb-second', 'at the edge') + 2 * p('function-call', 'at the edge'),
  ],
  ['app-hosting', { tier: 'wharf', count: '3', hoursPerMonth: '100' }, () => 300 * p('app-hour', 'wharf')],
  ['gateway', { count: '3', passedGb: '900' }, () => 3 * 730 * p('gateway-hour') + 900 * p('gateway-gb')],
  ['load-balancer', { count: '2', balancedGb: '70' }, () => 1460 * p('load-balancer-hour') + 70 * p('load-balancer-gb')],
  ['internet-transfer', { sentGb: '55000' }, () => tiered('transfer-out-gb', null, 55_000)],
  ['internal-transfer', { over: 'to another zone', sentGb: '400' }, () => 400 * p('transfer-zone-gb')],
  ['internal-transfer', { over: 'to another region', sentGb: '400' }, () => 400 * p('transfer-region-gb')],
  [
    'logs',
    { ingestedGb: '120', daysKept: '90', searchedGb: '600', metrics: '10500', alarms: '8' },
    () =>
      120 * p('logs-ingested-gb') +
      ((120 * 90 * 12) / 365) * p('logs-kept-gb-month') +
      600 * p('logs-searched-gb') +
      tiered('metric-month', null, 10_500) +
      8 * p('alarm-month'),
  ],
  [
    'media-encoding',
    { quality: 'full', by: 'per minute', minutes: '300', indexedMinutes: '120' },
    () => 300 * p('encoding-minute', 'full') + 120 * p('indexing-minute'),
  ],
  ['media-encoding', { quality: 'grand', by: 'per GB put out', outputGb: '45' }, () => 45 * p('encoding-gb', 'grand')],
  [
    'identity',
    { users: '120000', feature: 'risk watch', featureUsers: '3000' },
    () => tiered('identity-user', null, 120_000) + 3000 * p('identity-feature-user', 'risk watch'),
  ],
  [
    'file-share',
    { class: 'calm', storageGb: '300', count: '2', mbps: '150' },
    () => 2 * (300 * p('share-gb-month', 'calm') + 50 * p('share-throughput-month', 'calm')),
  ],
  [
    'recovery',
    { class: 'plain', storageGb: '200', count: '5', changePercent: '2', drillSize: 'reed-2x4', drillHours: '12' },
    () =>
      5 * p('recovery-server') +
      1000 * p('disk-gb-month', 'plain') +
      ((1000 * 0.02 * 365) / 12) * p('transfer-region-gb') +
      5 * p('server-hour', 'reed-2x4'),
  ],
  ['licence', { product: 'Fernsuite', count: '40', held: '12' }, () => 28 * p('licence-seat', 'Fernsuite')],
  ['licence', { product: 'Quillbase', count: '4', held: '9' }, () => 0],
  ['metered', { sku: lineOf('delivery-gb').sku, quantity: '12000' }, () => tiered('delivery-gb', null, 12_000)],
  ['free-form', { what: 'audit', amount: '1200', interval: 'a year' }, () => 100],
  ['free-form', { what: 'line', amount: '0.5', interval: 'an hour' }, () => 365],
]

it.each(cases)('prices %s %o as plain arithmetic does', (kind, inputs, expected) => {
  expect(monthly(kind, inputs)).toBeCloseTo(expected(), 8)
})

it('has a case for every kind but those that need a test of their own', () => {
  const apart = ['object-archive', 'desktop-fleet', 'support']
  expect(componentKinds.map(k => k.kind).filter(kind => !apart.includes(kind) && !cases.some(([tested]) => tested === kind))).toEqual([])
})

it('takes a support plan of the rest of the month, at least its least charge, tier by tier', () => {
  const rest = (count: string): [string, Record<string, string>] => ['server', { size: 'heron-16x128', count }]
  const plan: [string, Record<string, string>] = ['support', { plan: 'listening' }]
  const cost = (count: string) => Number(priced(rest(count)).totals.effectiveMonthly)
  const support = (count: string) => Number(priced(plan, rest(count)).components[0]!.chosen!.effectiveMonthly)
  expect(support('0')).toBe(95)
  expect(cost('1')).toBeLessThan(10_000)
  expect(support('1')).toBeCloseTo(Math.max(95, cost('1') * 0.09), 8)
  expect(cost('120')).toBeGreaterThan(80_000)
  expect(support('120')).toBeCloseTo(10_000 * 0.09 + 70_000 * 0.065 + (cost('120') - 80_000) * 0.045, 6)
})

it('sizes shared machines by sessions and a machine each by users', () => {
  const inputs = {
    size: 'otter-8x32',
    work: 'usual',
    hoursPerMonth: '5d x 10h',
    diskClass: 'steady',
    diskGb: '120',
    profileGb: '25',
    fileServer: 'reed-2x4',
    held: '30',
  }
  for (const [users, busy, quiet, up] of [
    [140, 75, 4, 'no'],
    [37, 90, 20, 'yes'],
    [500, 60, 0, 'no'],
    [1, 100, 100, 'no'],
  ] as const) {
    const perVcpu = up === 'yes' ? 2.5 : 4.5 // what the card says for much and for usual
    const machines = (share: number) => Math.ceil((users * share) / 100 / (8 * perVcpu))
    const [most, least] = [machines(busy), machines(quiet)]
    const hours = least * 730 + Math.max(0, most - least) * week(5, 10)
    const files = 2 * (730 * p('server-hour', 'reed-2x4') + users * 25 * p('disk-gb-month', 'steady'))
    const expected =
      hours * p('server-hour', 'otter-8x32') +
      Math.max(most, least) * 120 * p('disk-gb-month', 'steady') +
      files +
      Math.max(0, users - 30) * p('desktop-user')
    expect(
      monthly('desktop-fleet', {
        ...inputs,
        shape: 'shared machines',
        users: String(users),
        busyPercent: String(busy),
        quietPercent: String(quiet),
        oneUp: up,
      }),
      `${users} users`,
    ).toBeCloseTo(expected, 8)
  }
  const personal =
    22 *
      (week(5, 10) * (p('server-hour', 'otter-8x32') + 8 * p('system-vcpu-hour', 'Thrumwood Server')) +
        120 * p('disk-gb-month', 'steady')) +
    22 * 25 * p('share-gb-month', 'lively')
  expect(
    monthly('desktop-fleet', { ...inputs, shape: 'a machine each', users: '22', system: 'Thrumwood Server', profilesOn: 'share, lively' }),
  ).toBeCloseTo(personal, 8)
})

it("ages an archive month by month as counting every month's arrivals does", () => {
  for (const [start, after2, after3, deleted, read] of [
    [0, 3, 12, 0, 0],
    [5200, 2, 9, 20, 3],
    [100, 1, 2, 4, 0],
  ] as const) {
    const horizon = 24
    const objects = (gb: number) => (gb * 1000) / 8 / 1000
    let total = 0
    for (let month = 0; month < horizon; month++) {
      const cohorts = Array.from({ length: month + 1 }, (_, born) => ({ age: month - born, gb: 420 + (born === 0 ? start : 0) }))
      const bands = [
        ['ready', 0, after2],
        ['cool', after2, after3],
        ['deep', after3, deleted || Infinity],
      ] as const
      for (const [kind, from, to] of bands) {
        const here = cohorts.filter(c => c.age >= from && c.age < to).reduce((sum, c) => sum + c.gb, 0)
        const coming = cohorts.filter(c => c.age === from).reduce((sum, c) => sum + c.gb, 0)
        const leaving = cohorts.filter(c => c.age === to).reduce((sum, c) => sum + c.gb, 0)
        const minimum = (Number(lineOf('object-gb-month', kind).includes?.minimumDays ?? 0) * 12) / 365
        total +=
          tiered('object-gb-month', kind, here) +
          objects(coming) * p('object-write-1000', kind) +
          objects((here * read) / 100) * p('object-read-1000', kind)
        if (kind !== 'ready') total += ((here * read) / 100) * p('object-retrieval-gb', kind)
        if (leaving && minimum > to - from) total += leaving * (minimum - (to - from)) * p('object-gb-month', kind)
      }
    }
    const archive = priced([
      'object-archive',
      {
        class: 'ready',
        arrivesGb: '420',
        startGb: String(start),
        horizon: String(horizon),
        class2: 'cool',
        after2: String(after2),
        class3: 'deep',
        after3: String(after3),
        deletedAfter: String(deleted),
        readPercent: String(read),
        objectMb: '8',
      },
    ])
    const cost = Number(archive.totals.monthly)
    expect(cost, `moves after ${after2} and ${after3}`).toBeCloseTo(total / horizon, 8)
  }
})

it.each([
  ['a disk class that the size cannot take', 'disk', { class: 'swift', serverSize: 'reed-1x2' }, 'cannot take a disk of the class'],
  ['more operations than the class reaches', 'disk', { class: 'steady', iops: '20000' }, '16000 operations a second at most'],
  [
    'a system that the size does not run',
    'server',
    { size: 'teal-4x16', system: 'Thrumwood Server' },
    'does not run Thrumwood Server; the cheapest as large that does is',
  ],
  ['a size that cannot stand alone', 'server', { size: 'otter-2x8', host: 'dedicated host' }, 'cannot stand on a dedicated host'],
  ['a capacity that is too small', 'database-tier', { tier: 'brook', storageGb: '251' }, 'holds 250 GB at most'],
  ['rules that go backwards', 'object-archive', { class2: 'cool', after2: '6', class3: 'deep', after3: '6' }, 'must be older'],
  ['deletion before a move', 'object-archive', { class2: 'cool', after2: '6', deletedAfter: '6' }, 'deleted before it moves'],
  ['a fraction of a machine', 'server', { count: '1.5' }, 'whole number'],
  ['more hours than the month has', 'server', { hoursPerMonth: '731' }, 'from 0 to 730 h'],
  ['no number at all', 'internet-transfer', { sentGb: 'lots' }, 'is no number'],
] as [string, string, Record<string, string>, string][])('refuses %s and says what would do', (_, kind, inputs, words) => {
  const { components, unpriced } = priced([kind, inputs])
  expect(unpriced).toBe(1)
  expect(Object.values(components[0]!.problems).join()).toContain(words)
})
