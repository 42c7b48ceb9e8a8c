import { Decimal, decimalText } from '../../money/decimal'
import { findSize, linesOf } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { divide, input, multiply } from '../../working/working'
import type { Instruction } from '../instruction'
import type { BillDetector, Threshold } from '../detector'
import type { Bill } from '../bill/bill'
import { unitsIn, within, type BilledUse } from '../bill/billed-resource'
import { amount, atPrice, findingOf, monthlyUnits } from '../bill/finding'
import { dearestPrice } from '../bill/dearest-price'
import { runsAlike } from '../runs-alike'

const saved: Threshold = { key: 'saved', label: 'the other costs less by at least', unit: '%', usual: 5, least: 0, most: 90 }

/**
 * Machines, databases and disks of an old generation: the rate card has another class or size in the same region that gives at least as
 * much and costs less. What disks of that class are charged for beside, on this bill, is reckoned with.
 */
export const betterClass: BillDetector = {
  from: 'bill',
  detector: 'better-class',
  label: 'Old generation',
  thresholds: [saved],
  lookThrough(bill) {
    const beside = besideByClass(bill)
    return (resource, settings) => {
      const { card } = resource
      if (!card) return []
      return resource.uses.flatMap(use => {
        if (!use.line || use.currency !== card.currency || within(use.cost, 30) <= 0n || unitsIn(use, 3) === 0n) return []
        // performance that was bought beside says more than the class: another way to look at it
        if (isDisk(use.line) && resource.uses.some(other => other !== use && unitsIn(other, 30) > 0n)) return []
        const better = betterThan(use.line, card, settings.saved!)
        if (!better) return []
        const units = monthlyUnits(resource, use)
        const then = atPrice(better.variant!, units, { price: dearestPrice(better), sku: better.sku, currency: card.currency }, use)
        const others = beside.get(besideKey(resource.provider, better.sku, card.currency))
        const further = others?.cost.gt(0)
          ? [
              multiply(`beside it, as for other disks «${better.variant}»`, [
                units,
                divide('for each GB-month', [input('charged beside', others.cost, card.currency), input('of GB-months', others.units)]),
              ]),
            ]
          : []
        const finding = findingOf(
          resource,
          [{ use, how: 'cheaper', then }],
          {
            detector: betterClass.detector,
            of: use.sku,
            instruction: instructionTo(use.line, better),
            title: `${resource.name} would have more for less as «${better.variant}»`,
            risk: 'little',
            minutesOfWork: 20,
            series: [
              {
                resourceId: resource.id,
                skus: [use.sku],
                label: isDisk(use.line) ? 'kept' : 'ran',
                unit: isDisk(use.line) ? 'GB' : 'h',
                threshold: null,
                said: `${givesWords(use.line, card)} now; «${better.variant}» gives ${givesWords(better, card)}, for ${dearestPrice(better)} instead of ${dearestPrice(use.line)} ${card.currency}.`,
              },
            ],
          },
          further,
        )
        return finding ? [finding] : []
      })
    }
  },
  byHand: {
    steps: ({ resourceName }) => [`take a snapshot of ${resourceName}`, 'change its class or size at the provider, in a quiet hour'],
    undo: 'The class can be changed back as long as the provider sells the old one.',
  },
  says: open => `${open === 1 ? 'One thing is' : `${open} things are`} of an old generation.`,
}

const instructionTo = (now: PriceLine, then: PriceLine): Instruction => ({
  ...{ from: now.variant!, to: then.variant! },
  ...(isDisk(now)
    ? { type: 'disk', deed: 'change class' as const }
    : { type: now.meter === 'server-hour' ? 'server' : 'database', deed: 'change size' as const }),
})
const isDisk = ({ meter }: PriceLine) => meter === 'disk-gb-month'
const isMachine = ({ meter }: PriceLine) => meter === 'server-hour' || meter === 'database-hour'
const given = ['iops', 'mbps', 'iopsMost', 'mbpsMost', 'zones'] as const

/** The cheapest line of the card that gives at least as much, where it costs less by so many percent. */
function betterThan(line: PriceLine, card: RateCard, percent: number): PriceLine | null {
  const most = new Decimal(dearestPrice(line)).times(100 - percent).div(100)
  const better = linesOf(card, line.meter, line.region)
    .filter(other => other.variant !== line.variant && other.variant !== null && new Decimal(dearestPrice(other)).lte(most))
    .filter(other => (isDisk(line) ? givesDisk(other, line) : isMachine(line) && givesMachine(other, line, card)))
  return better.sort((a, b) => new Decimal(dearestPrice(a)).cmp(dearestPrice(b)))[0] ?? null
}

const givesDisk = (other: PriceLine, line: PriceLine) =>
  line.includes !== undefined && given.every(what => new Decimal(other.includes?.[what] ?? 0).gte(line.includes?.[what] ?? 0))

function givesMachine(other: PriceLine, line: PriceLine, card: RateCard): boolean {
  const [then, now] = [findSize(card, other.variant!), findSize(card, line.variant!)]
  if (!then || !now) return false
  return then.vcpu >= now.vcpu && then.memoryGb >= now.memoryGb && runsAlike(then, now)
}

function givesWords(line: PriceLine, card: RateCard): string {
  if (isDisk(line)) return `${line.includes?.iops ?? '0'} operations and ${line.includes?.mbps ?? '0'} MB a second`
  const size = findSize(card, line.variant!)
  return `${size?.vcpu} vCPU and ${size?.memoryGb} GB`
}

const besideKey = (provider: string, sku: string, currency: string) => `${provider}\n${sku}\n${currency}`

/** By provider, SKU and currency what disks of a class are charged for beside their GB, over all that the bill has. */
function besideByClass({ resources }: Bill): Map<string, { cost: Decimal; units: string }> {
  const sums = new Map<string, { cost: bigint; units: bigint }>()
  for (const resource of resources)
    for (const use of resource.uses) {
      if (!use.line || !isDisk(use.line)) continue
      const key = besideKey(resource.provider, use.sku, use.currency)
      const own = sums.get(key) ?? { cost: 0n, units: 0n }
      own.units += within(use.quantity, 30)
      own.cost += resource.uses.reduce((sum, other) => (isBeside(other, use) ? sum + within(other.cost, 30) : sum), 0n)
      sums.set(key, own)
    }
  return new Map(
    [...sums].flatMap(([key, { cost, units }]) =>
      units > 0n ? [[key, { cost: amount(cost), units: decimalText(amount(units)) }] as const] : [],
    ),
  )
}

/** What comes with a class by use of it, and is not bought. */
const isBeside = (other: BilledUse, use: BilledUse) => other !== use && other.currency === use.currency && other.charged === 'use'
