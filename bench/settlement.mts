// How long a month takes to be settled, and how long its longest slice is: `npm run bench:settlement`. A month of charges of 300 sub accounts
// under 200 rules with 12 pools and 300 cost centres, in so many combinations of what rules look at; the same combinations at every size
// come as often.
import { chargesWithin } from '../core/allocation/bound'
import { allocationPlanSchema, type AllocationPlan } from '../core/allocation/plan'
import { centreCoding } from '../core/allocation/centre-coding'
import { monthStatements } from '../core/allocation/statements/month-statements'
import { movedCharges } from '../core/allocation/moved-charges'
import type { UpliftFacts } from '../core/allocation/uplift-lines'
import { toEnd } from '../core/spend/slices'
import { addMonths, monthEnd } from '../core/time/day'
import { settleInSlices } from '../core/allocation/settle'
import { dictionaries, dictionaryNames, type DictionaryName } from '../core/focus/star'
import { scaled } from '../core/money/scaled'
import { answer } from '../core/spend/answer'
import { Cube } from '../core/spend/cube'
import { limbsOf } from '../core/money/limbs'
import { OpenSegment } from '../core/spend/open-segment'
import { measureNames, SEGMENT_ROWS, type Segment } from '../core/spend/segment'

const ACCOUNTS = 300
const CENTRES = 300
const RULES = 200
const POOLS = 12
const MONTH = '2026-10'

/** Numbers that look random and are the same every time. */
let seed = 1
const random = (below: number) => {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0
  return Math.floor((seed / 2 ** 32) * below)
}

const entry = (dictionary: DictionaryName, values: Record<string, string>) => dictionaries[dictionary].map(column => values[column] ?? null)

/** Charges in so many combinations of account, service, region, and tags, in equal parts over months that end with the one settled. */
function monthOf(charges: number, combinations: number, months = 1): Cube {
  const cube = new Cube()
  const teams = 150
  const tagSets = Math.max(1, Math.floor(combinations / 10))
  const always = { ChargeCategory: 'Usage', PricingUnit: 'Hours' }
  for (const name of dictionaryNames) cube.addEntry(name, 0, entry(name, always))
  for (let i = 0; i < ACCOUNTS; i++)
    cube.addEntry('subAccount', i, entry('subAccount', { SubAccountId: `id-${i}`, SubAccountName: `account-${i}` }))
  for (let i = 0; i < 40; i++) cube.addEntry('sku', i, entry('sku', { ServiceName: `service-${i % 25}`, SkuId: `sku-${i}` }))
  for (let i = 0; i < combinations; i++)
    cube.addEntry(
      'resource',
      i,
      entry('resource', { ResourceId: `resource-${i}`, ResourceName: `crew-${i % 977}-${i}`, RegionId: `region-${i % 6}` }),
    )
  for (let i = 0; i < tagSets; i++)
    cube.addEntry(
      'tagSet',
      i,
      entry('tagSet', {
        Tags: JSON.stringify({ ...(i % 7 && { team: `team-${i % teams}` }), product: `product-${i % 400}`, run: String(i) }),
      }),
    )
  cube.addEntry('billingAccount', 0, entry('billingAccount', { ProviderName: 'Benchcloud' }))
  const of = Array.from({ length: combinations }, (_, i) => ({
    account: random(ACCOUNTS),
    sku: random(40),
    resource: i,
    tags: random(tagSets),
  }))
  cube.currencyCode('EUR')
  const each = Math.ceil(charges / months)
  for (let month = 0; month < months; month++) addMonth(cube, month, each, of, combinations)
  return cube
}

type Combination = { account: number; sku: number; resource: number; tags: number }

/** A month of charges, so many before the one that is settled. */
function addMonth(cube: Cube, before: number, charges: number, of: readonly Combination[], combinations: number): void {
  const segments: Segment[] = []
  const start = Date.UTC(2026, 9 - before, 1) / 1000
  const day0 = new Date(start * 1000).toISOString().slice(0, 10)
  for (let from = 0; from < charges; from += SEGMENT_ROWS) {
    const open = new OpenSegment()
    for (let i = from; i < Math.min(charges, from + SEGMENT_ROWS); i++) {
      const { account, sku, resource, tags } = of[i % combinations]!
      const keys = dictionaryNames.map(name =>
        name === 'subAccount' ? account : name === 'sku' ? sku : name === 'resource' ? resource : name === 'tagSet' ? tags : 0,
      )
      const day = start + random(28) * 86_400
      const row = open.add(day, day + 86_400, 0, keys, 0)
      const { high, low } = limbsOf(scaled(`${random(100_000) / 100}`))
      measureNames.forEach((_, measure) => open.setMeasure(measure, row, high, low))
    }
    segments.push(open.finish())
  }
  cube.setPeriod({
    ...{
      source: 'bench',
      billingPeriodStart: `${day0}T00:00:00Z`,
      billingPeriodEnd: `${monthEnd(day0.slice(0, 7))}T00:00:00Z`,
      deliveredAt: '2026-11-02T00:00:00Z',
    },
    segments,
  })
}

function planOf(): AllocationPlan {
  const centres = Array.from({ length: CENTRES }, (_, i) => ({
    id: `c${i}`,
    name: `Centre ${i}`,
    parent: i ? `c${Math.floor((i - 1) / 5)}` : null,
    owner: null,
  }))
  const pools = Array.from({ length: POOLS }, (_, i) =>
    i % 3 === 0
      ? { id: `p${i}`, name: `Pool ${i}`, method: 'direct cost' as const }
      : i % 3 === 1
        ? { id: `p${i}`, name: `Pool ${i}`, method: 'shares' as const, shares: { [`p${i - 1}`]: '1', c1: '2', c2: '3' } }
        : {
            id: `p${i}`,
            name: `Pool ${i}`,
            method: 'quantity' as const,
            measure: 'pricingQuantity' as const,
            unit: 'no unit',
            conditions: [],
          },
  )
  const rules = Array.from({ length: RULES }, (_, i) => {
    const target = i % 17 === 0 ? `p${(i / 17) % POOLS}` : `c${(i * 7) % CENTRES}`
    const conditions =
      i < 120
        ? [{ dimension: 'Tags/team', values: [`team-${i}`] }]
        : i < 160
          ? [
              { dimension: 'SubAccountName', values: [`account-${i}`, `account-${i + 40}`] },
              { dimension: 'ServiceName', values: [`service-${i % 25}`, `service-${(i + 3) % 25}`] },
            ]
          : i < 180
            ? [{ dimension: 'ResourceName', pattern: `crew-${i}-*` }]
            : i < 190
              ? [
                  { dimension: 'RegionId', values: [`region-${i % 6}`] },
                  { measure: 'billedCost' as const, atLeast: '990' },
                ]
              : [{ dimension: 'Tags/product', values: [`product-${i}`, null] }]
    return { id: `r${i}`, conditions, target, ...(i % 40 === 0 && { until: '2026-10-20' }) }
  })
  return allocationPlanSchema.parse({ centres, pools, rules })
}

const plan = planOf()
const uplifts: UpliftFacts = {
  sets: [
    {
      ...{ id: 'u', name: 'Care', currency: 'EUR', interval: 'hour', validFrom: '2026-01-01', who: 'x', setAt: '' },
      charges: [{ by: 'flat', label: 'care', amount: '0.01' }],
      attached: [{ to: 'kind', key: 'server', variant: null }],
    },
  ],
  skus: new Map(
    Array.from({ length: 40 }, (_, i) => [
      `sku-${i}`,
      { use: { kind: 'server', tells: 'hours' as const }, variant: `size-${i % 5}`, system: null, unit: 'Hours', vcpu: 2 },
    ]),
  ),
}
for (const [charges, combinations] of [
  [100_000, 10_000],
  [1_000_000, 100_000],
  [10_000_000, 1_000_000],
] as const) {
  if (charges > Number(process.env.RAIN_BARREL_MOST ?? 1e7)) break
  const cube = monthOf(charges, combinations)
  const timed = <T,>(what: string, run: () => T): T => {
    const begun = performance.now()
    const made = run()
    console.log(`${what.padEnd(44)} ${(performance.now() - begun).toFixed(0).padStart(6)} ms`)
    return made
  }
  console.log(`${charges.toLocaleString('en')} charges in ${combinations.toLocaleString('en')} combinations`)
  const settle = (own: AllocationPlan, onUse?: UpliftFacts) => {
    let longest = 0
    let slices = 0
    const run = settleInSlices(cube, own, {
      ...{ month: MONTH, measure: 'billedCost', reportCurrency: null, rates: [] },
      ...(onUse && { uplifts: onUse }),
    })
    for (let begun = performance.now(); ; begun = performance.now()) {
      const { done, value } = run.next()
      longest = Math.max(longest, performance.now() - begun)
      slices++
      if (!done) continue
      console.log(`    ${slices} slices, the longest ${longest.toFixed(0)} ms; ${value.unallocated.length} groups on none`)
      if (!value.proof.every(({ equal }) => equal)) throw new Error('it does not add up')
      return
    }
  }
  timed('settled for the first time', () => settle(plan))
  const changed = { ...plan, rules: [plan.rules[150]!, ...plan.rules] }
  timed('preview of a changed rule', () => settle(changed))
  timed('preview of another', () => settle({ ...plan, rules: [...plan.rules].reverse() }))
  timed('which charges that moves', () =>
    toEnd(movedCharges({ cube, tree: plan }, { cube, tree: changed }, { month: MONTH, measure: 'billedCost' })),
  )
  timed('with uplifts on each hour of each machine', () => settle(plan, uplifts))
  cube.setCentres((own, tree, shows) => centreCoding({ newest: plan, closed: {} }, tree, dimension => own.coding(dimension), shows))
  const question = {
    measure: 'billedCost' as const,
    splitBy: ['CostCentre'],
    grain: null,
    start: '2026-10-01',
    end: '2026-11-01',
    keep: {},
    leaveOut: {},
  }
  timed('CostCentre asked for the first time', () => answer(cube, question))
  timed('and again', () => answer(cube, question))
  const part = timed('the charges within a bound, of a fifth of the centres', () => chargesWithin(cube, plan.centres, { centres: ['c1'] }))
  console.log(`    ${part.cube.rows.toLocaleString('en')} charges`)
  timed('CostCentre asked of them', () => answer(part.cube, question))
}

// a year of charges: what one rule moves in each of twelve months
const year = monthOf(1_000_000, 100_000, 12)
const months = Array.from({ length: 12 }, (_, before) => addMonths(MONTH, -before))
const monthly = (own: AllocationPlan) =>
  months.map(month => toEnd(settleInSlices(year, own, { month, measure: 'billedCost', reportCurrency: null, rates: [] })))
console.log('1,000,000 charges in twelve months')
const measured = async <T,>(what: string, run: () => T | Promise<T>): Promise<T> => {
  const begun = performance.now()
  const made = await run()
  console.log(`${what.padEnd(44)} ${(performance.now() - begun).toFixed(0).padStart(6)} ms`)
  return made
}
await measured('settled for the first time', () => monthly(plan))
const [settled] = await measured('preview of a changed rule over twelve', () =>
  monthly({ ...plan, rules: [plan.rules[150]!, ...plan.rules] }),
)
const statements = { month: MONTH, measure: 'billedCost' as const }
await measured('the statements of a month', () => monthStatements(statements, { ...settled!, adjustments: [], closed: null }, plan.centres))
