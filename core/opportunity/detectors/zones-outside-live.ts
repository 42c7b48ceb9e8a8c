import { Decimal } from '../../money/decimal'
import { linesOf } from '../../ratecard/find-price'
import type { PriceLine } from '../../ratecard/rate-card'
import type { BillDetector, Threshold } from '../detector'
import { unitsIn, within, type BilledUse } from '../bill/billed-resource'
import { atPrice, findingOf, monthlyUnits, type Change } from '../bill/finding'
import { dearestPrice } from '../bill/dearest-price'
import { outsideLive } from '../bill/outside-live'

const saved: Threshold = { key: 'saved', label: 'one zone costs less by at least', unit: '%', usual: 5, least: 0, most: 90 }

/** Disks that are kept in several zones for what is not live, by the tag that tells environments apart. */
export const zonesOutsideLive: BillDetector = {
  from: 'bill',
  detector: 'zones-outside-live',
  label: 'Several zones outside live',
  thresholds: [saved],
  lookThrough() {
    return (resource, settings) => {
      const { card } = resource
      const environment = outsideLive(resource)
      if (!card || environment === null) return []
      const changes = resource.uses.flatMap((use): (Change & { to: string })[] => {
        const one = use.line && use.currency === card.currency && unitsIn(use, 3) > 0n ? inOneZone(use.line, card) : null
        if (!one || within(use.cost, 30) <= 0n) return []
        const most = new Decimal(dearestPrice(use.line!)).times(100 - settings.saved!).div(100)
        if (use.line!.meter === 'disk-gb-month' && new Decimal(dearestPrice(one)).gt(most)) return []
        const priced = { price: dearestPrice(one), sku: one.sku, currency: card.currency }
        return [{ use, how: 'cheaper', then: atPrice(one.variant!, monthlyUnits(resource, use), priced, use), to: one.variant! }]
      })
      const disk = changes.find(({ use }) => use.line!.meter === 'disk-gb-month')?.use.line
      // bought performance moves with the disk: its own lines are changed with it, or nothing is
      const bought = resource.uses.filter(({ line }) => line && line.variant === disk?.variant && isBought(line))
      if (!disk || bought.some(use => unitsIn(use, 3) > 0n && !changes.some(change => change.use === use))) return []
      const finding = findingOf(resource, changes, said(resource.name, resource.id, environment, changes))
      return finding ? [finding] : []
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask the team whether ${resourceName} has to outlive a zone`,
      'make a snapshot, and from it a disk in one zone; let the machine use that',
    ],
    undo: 'A disk in several zones can be made of a snapshot again.',
  },
  says: open => `${open === 1 ? 'One disk outside live is' : `${open} disks outside live are`} kept in several zones.`,
}

const said = (name: string, resourceId: string, environment: string, changes: readonly (Change & { to: string })[]) => ({
  detector: zonesOutsideLive.detector,
  title: `${name} is kept in several zones for ${environment}`,
  risk: 'some' as const,
  minutesOfWork: 30,
  series: [
    {
      resourceId,
      skus: changes.filter(({ use }) => use.line?.meter === 'disk-gb-month').map(({ use }) => use.sku),
      label: 'kept',
      unit: 'GB',
      threshold: null,
      said: `Tagged ${environment}; «${changes[0]!.to}» gives the same in one zone.`,
    },
  ],
})

const isBought = ({ meter }: PriceLine) => meter === 'disk-iops-month' || meter === 'disk-throughput-month'
const zonesOf = ({ includes }: PriceLine) => Number(includes?.zones ?? 1)

/** The line that gives as much in one zone; of bought performance, that of the same class. */
function inOneZone(line: NonNullable<BilledUse['line']>, card: Parameters<typeof linesOf>[0]): PriceLine | null {
  const others = linesOf(card, line.meter, line.region)
  if (line.meter === 'disk-gb-month') {
    if (zonesOf(line) < 2) return null
    const gives = (other: PriceLine) =>
      zonesOf(other) === 1 &&
      (['iops', 'mbps', 'iopsMost', 'mbpsMost'] as const).every(what =>
        new Decimal(other.includes?.[what] ?? 0).gte(line.includes?.[what] ?? 0),
      )
    return others.filter(gives).sort((a, b) => new Decimal(dearestPrice(a)).cmp(dearestPrice(b)))[0] ?? null
  }
  if (!isBought(line)) return null
  const disks = linesOf(card, 'disk-gb-month', line.region)
  const own = disks.find(({ variant }) => variant === line.variant)
  const one = own ? inOneZone(own, card) : null
  return others.find(({ variant }) => variant === one?.variant) ?? null
}
