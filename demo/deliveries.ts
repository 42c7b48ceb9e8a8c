import { Decimal } from '../core/money/decimal'
import type { Day, Month } from '../core/time/day'
import { monthStart } from '../core/time/day'
import { months, TODAY } from './calendar'
import { cloudCharges, oneAmount, type Account, type Done } from './cloud-charges'
import type { FileCharge } from './focus-file'
import { brackwaterInventory, larkfieldInventory } from './inventory'
import { otherCharges, otherSources } from './other-charges'
import { lateCorrection } from './planted'
import { brackwaterCard, brackwaterNextCard, larkfieldCard } from './rate-cards'

export const brackwaterAccount: Account = {
  provider: 'Brackwater Cloud',
  billingAccountId: 'skerry-bw-1',
  billingAccountName: 'Skerry Lines at Brackwater',
  card: brackwaterCard,
  later: brackwaterNextCard,
}
export const larkfieldAccount: Account = {
  provider: 'Larkfield Compute',
  billingAccountId: 'skerry-lk-1',
  billingAccountName: 'Skerry Lines at Larkfield',
  card: larkfieldCard,
}

/** One file of the demo: a source's billing month. */
export type Delivery = { source: string; file: string; month: Month; charges: () => Iterable<FileCharge> }

/** Brackwater's billing month to date, with what has been done since. Used by the demo files and by the stand-in cloud alike. */
export function brackwaterDelivery(month: Month, until: Day, done?: Done): Iterable<FileCharge> {
  return cloudCharges(brackwaterAccount, [...brackwaterInventory(), ...(done?.made ?? [])], month, until, done)
}

/** All deliveries of the demo's months, oldest first. */
export function demoDeliveries(until: Day = TODAY): Delivery[] {
  const brackwater = brackwaterInventory()
  const larkfield = larkfieldInventory()
  return months
    .filter(month => monthStart(month) < until)
    .flatMap((month): Delivery[] => [
      {
        source: 'Brackwater Cloud',
        file: `brackwater-${month}.csv.gz`,
        month,
        charges: () => cloudCharges(brackwaterAccount, brackwater, month, until),
      },
      {
        source: 'Larkfield Compute',
        file: `larkfield-${month}.csv.gz`,
        month,
        charges: () => cloudCharges(larkfieldAccount, larkfield, month, until),
      },
      ...otherSources.map(source => ({
        source: source.provider,
        file: `${source.file}-${month}.csv.gz`,
        month,
        charges: () => otherCharges(source, month, until),
      })),
    ])
}

/** A month that is delivered once more, with a correction that came after it was closed. */
export function* correctedDelivery(): Generator<FileCharge> {
  const source = otherSources.find(({ provider }) => provider === lateCorrection.provider)!
  let first: FileCharge | null = null
  for (const charge of otherCharges(source, lateCorrection.month, TODAY)) {
    first ??= charge
    yield charge
  }
  yield oneAmount(
    {
      ...first!,
      ...{ ChargeClass: 'Correction', ChargeFrequency: 'One-Time', ChargeDescription: lateCorrection.description, PricingCategory: '' },
      ...{ PricingQuantity: '', PricingUnit: '', ConsumedQuantity: '', ConsumedUnit: '', ListUnitPrice: '', ContractedUnitPrice: '' },
    },
    new Decimal(lateCorrection.amount),
  )
}
