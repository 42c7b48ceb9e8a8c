import { Decimal, decimalText } from '../../money/decimal'
import { findPrice, linesOf } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { divide, input, multiply, type Working } from '../../working/working'
import type { BillDetector, Settings, Threshold } from '../detector'
import { unitsIn, usesOf, within, type BilledResource, type BilledUse } from '../bill/billed-resource'
import { atPrice, findingOf, monthlyUnits, type BillFinding, type Change } from '../bill/finding'
import { dearestPrice } from '../bill/dearest-price'

const size: Threshold = { key: 'size', label: 'an object is, on average (no bill says)', unit: 'MB', usual: 4, least: 0.001, most: 100_000 }
const hours: Threshold = { key: 'hours', label: 'fetching may take at most', unit: 'h', usual: 0, least: 0, most: 48 }
const saved: Threshold = { key: 'saved', label: 'saves at least', unit: 'a month', usual: 10, least: 0, most: 1_000_000 }

const days: Threshold = { key: 'days', label: 'objects stay at least', unit: 'days', usual: 30, least: 0, most: 400 }

/**
 * Object storage in a warmer class than its use asks for: for each cooler class what the same storing, writing and reading would cost, with
 * what is fetched, and once what moving costs. How large objects are no bill says: it is assumed, and said so in the workings.
 */
export const storageTooWarm: BillDetector = {
  from: 'bill',
  detector: 'storage-too-warm',
  label: 'Storage warmer than its use',
  thresholds: [size, hours, days, saved],
  lookThrough() {
    return (resource, settings) => {
      const stored = usesOf(resource, 'object-gb-month').filter(use => unitsIn(use, 3) > 0n && within(use.cost, 30) > 0n)
      const { card } = resource
      if (!card || stored.length !== 1 || stored[0]!.currency !== card.currency) return []
      const line = stored[0]!.line!
      const offers = linesOf(card, line.meter, line.region)
        .filter(other => other.variant !== null && new Decimal(dearestPrice(other)).lt(dearestPrice(line)))
        .filter(
          ({ includes }) => Number(includes?.hoursToFetch ?? 0) <= settings.hours! && Number(includes?.minimumDays ?? 0) <= settings.days!,
        )
        // what watches objects and moves them by itself asks for what no bill says: how many there are
        .filter(other => !findPrice(card, 'object-watch-1000', other.region, other.variant))
        .flatMap(other => offerOf(resource, stored[0]!, other, card, settings) ?? [])
        .filter(({ monthlySaving }) => new Decimal(monthlySaving).gte(settings.saved!))
      return offers.sort((a, b) => new Decimal(b.monthlySaving).cmp(a.monthlySaving)).slice(0, 1)
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `look how large the objects of ${resourceName} are, and how long they stay: the workings assume it`,
      'set a rule that moves objects after some days, and move those that are older now',
    ],
    undo: 'Objects can be moved back; fetching them is charged, and the least stay of the cooler class.',
  },
  says: open => `${open === 1 ? 'One store is' : `${open} stores are`} warmer than the use asks for.`,
}

/** What moving to a class would save; null where it would not. */
function offerOf(resource: BilledResource, use: BilledUse, to: PriceLine, card: RateCard, settings: Settings): BillFinding | null {
  const gb = monthlyUnits(resource, use)
  const priced = ({ sku, ...line }: PriceLine) => ({ price: dearestPrice({ ...line, sku }), sku, currency: card.currency })
  const changes: Change[] = [{ use, how: 'cheaper', then: atPrice(`stored «${to.variant}»`, gb, priced(to), use) }]
  const further: Working[] = []
  for (const meter of ['object-write-1000', 'object-read-1000'] as const)
    for (const own of usesOf(resource, meter)) {
      if (within(own.quantity, 30) <= 0n) continue
      const line = findPrice(card, meter, to.region, to.variant)
      if (!line) return null
      const units = monthlyUnits(resource, own)
      changes.push({ use: own, how: 'cheaper', then: atPrice(meter === 'object-read-1000' ? 'read' : 'written', units, priced(line), own) })
      const fetching = meter === 'object-read-1000' ? findPrice(card, 'object-retrieval-gb', to.region, to.variant) : undefined
      if (fetching) further.push(atPrice('fetched', gbOf('fetched a month', units, settings), priced(fetching), own))
    }
  const moving = findPrice(card, 'object-write-1000', to.region, to.variant)
  const oneOff = moving
    ? multiply('moving, once', [objectsOf(gb, settings), input('price', dearestPrice(moving), card.currency, moving.sku)])
    : null
  const finding = findingOf(
    resource,
    changes,
    {
      detector: storageTooWarm.detector,
      title: `${resource.name} asks for «${to.variant}», not «${use.line!.variant}»`,
      risk: 'little',
      minutesOfWork: 60,
      oneOff,
      series: [
        {
          resourceId: resource.id,
          skus: usesOf(resource, 'object-read-1000').map(({ sku }) => sku),
          label: 'read',
          unit: 'thousand requests',
          threshold: null,
          said: `Stored «${use.line!.variant}»; written and read as it is, «${to.variant}» costs less, at ${settings.size} MB an object, which is assumed: no bill says.`,
        },
      ],
    },
    further,
  )
  return finding
}

/** GB of so many thousand requests, by the size that is assumed of an object: 1,000 requests of 1 MB are 1 GB. */
const gbOf = (label: string, thousands: Working, settings: Settings): Working =>
  multiply(label, [thousands, input('GB for a thousand, at the size assumed', decimalText(new Decimal(settings.size!)), 'GB')])

/** Thousands of objects that so many GB are, by the size assumed. */
const objectsOf = (gb: Working, settings: Settings): Working =>
  divide('objects, thousands', [gb, input('GB for a thousand, at the size assumed', decimalText(new Decimal(settings.size!)), 'GB')])
