import { Decimal, decimalText } from '../core/money/decimal'
import { addDays, daysBetween, monthEnd, monthStart, type Day, type Month } from '../core/time/day'
import { oneAmount } from './cloud-charges'
import type { FileCharge } from './focus-file'
import { refund } from './planted'
import { wobble } from './random'

type Line = {
  account: string
  category: string
  service: string
  meter: string
  sku: string
  description: string
  unit: string
  quantity: (month: Month) => number
  price: string
  tags?: Record<string, string>
}
export type OtherSource = { file: string; provider: string; currency: string; taxPercent: number; lines: Line[] }

const monthIndex = (month: Month) => Number(month.slice(0, 4)) * 12 + Number(month.slice(5))

const seats = (provider: string, account: string, tiers: [tier: string, seats: number, price: string, perMonth?: number][]): Line[] =>
  tiers.map(([tier, count, price, perMonth = 0]) => ({
    account,
    category: 'Business Applications',
    service: provider,
    meter: `seats, ${tier}`,
    sku: `${provider.toUpperCase().slice(0, 4)}-${tier.toUpperCase()}`,
    description: `${provider} ${tier}, seats`,
    unit: 'Seat-Months',
    price,
    quantity: month => Math.round(count + perMonth * (monthIndex(month) - monthIndex('2025-11'))),
  }))

/** Sources beside the two clouds: own data centre, subscriptions, staff. */
export const otherSources: OtherSource[] = [
  {
    file: 'pier-house',
    provider: 'Pier House DC',
    currency: 'EUR',
    taxPercent: 0,
    lines: [
      {
        account: 'pier-house',
        category: 'Compute',
        service: 'Racks',
        meter: 'racks',
        sku: 'PH-RACK',
        description: 'Racks, space and maintenance',
        unit: 'Rack-Months',
        price: '640',
        quantity: () => 6,
      },
      {
        account: 'pier-house',
        category: 'Other',
        service: 'Power',
        meter: 'kWh',
        sku: 'PH-KWH',
        description: 'Electricity with cooling',
        unit: 'kWh',
        price: '0.184',
        quantity: month => Math.round(15_800 * wobble(0.04, 'power', month)),
      },
      {
        account: 'pier-house',
        category: 'Storage',
        service: 'Storage arrays',
        meter: 'arrays',
        sku: 'PH-ARRAY',
        description: 'Storage arrays, straight-line over five years',
        unit: 'Array-Months',
        price: '1150',
        quantity: () => 2,
      },
      {
        account: 'pier-house',
        category: 'Other',
        service: 'Administration',
        meter: 'people',
        sku: 'PH-ADMIN',
        description: 'Two administrators',
        unit: 'Person-Months',
        price: '3200',
        quantity: () => 2,
      },
    ],
  },
  {
    file: 'fernsuite',
    provider: 'Fernsuite',
    currency: 'EUR',
    taxPercent: 20,
    lines: seats('Fernsuite', 'fernsuite seats', [
      ['basic', 420, '5.80'],
      ['full', 390, '14.20', 3],
      ['full plus', 46, '23.50'],
    ]),
  },
  {
    file: 'mossdesk',
    provider: 'Mossdesk',
    currency: 'EUR',
    taxPercent: 0,
    lines: seats('Mossdesk', 'mossdesk seats', [
      ['agent', 34, '49'],
      ['light agent', 52, '14'],
    ]),
  },
  {
    file: 'lanternchart',
    provider: 'Lanternchart',
    currency: 'NOK',
    taxPercent: 25,
    lines: seats('Lanternchart', 'lanternchart seats', [
      ['bridge', 14, '890'],
      ['planner', 22, '340'],
    ]),
  },
  {
    file: 'payroll',
    provider: 'Skerry payroll feed',
    currency: 'EUR',
    taxPercent: 0,
    lines: (
      [
        ['booking', 118],
        ['passenger-app', 84],
        ['freight-desk', 61],
        ['vessel-telemetry', 55],
        ['crew-roster', 30],
        ['data-lake', 74],
        ['platform', 130],
      ] as const
    ).map(([team, hours]) => ({
      account: 'platform team',
      category: 'Other',
      service: 'Platform team',
      meter: 'hours',
      sku: `PAY-${team.toUpperCase()}`,
      description: `Platform team, hours for ${team}`,
      unit: 'Hours',
      price: '61.50',
      tags: { team },
      quantity: (month: Month) => Math.round(hours * wobble(0.12, 'payroll', team, month)),
    })),
  },
]

/** A month of such a source, day by day; tax on each day's sum; what was given back. The days of a whole month add up to its quantity. */
export function* otherCharges(source: OtherSource, month: Month, until: Day): Generator<FileCharge> {
  const id = `${source.file}-main`
  const days = daysBetween(monthStart(month), monthEnd(month))
  const subAccount = (account: string) => ({ SubAccountId: `acc-${account.replaceAll(' ', '-')}`, SubAccountName: account })
  for (let index = 0; index < days; index++) {
    const day = addDays(monthStart(month), index)
    if (day >= until) return
    const base: FileCharge = {
      BillingPeriodStart: `${monthStart(month)}T00:00:00Z`,
      BillingPeriodEnd: `${monthEnd(month)}T00:00:00Z`,
      ChargePeriodStart: `${day}T00:00:00Z`,
      ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z`,
      BillingAccountId: id,
      BillingAccountName: `Skerry Lines at ${source.provider}`,
      BillingCurrency: source.currency,
      InvoiceIssuerName: source.provider,
      ProviderName: source.provider,
      PublisherName: source.provider,
      InvoiceId: `${id}-${month}`,
    }
    let total = new Decimal(0)
    for (const line of source.lines) {
      const upTo = (count: number) => Math.round((line.quantity(month) * 1_000_000 * count) / days)
      const quantity = new Decimal(upTo(index + 1) - upTo(index)).div(1_000_000)
      const amount = quantity.times(line.price)
      total = total.plus(amount)
      yield oneAmount(
        {
          ...base,
          ...subAccount(line.account),
          ServiceCategory: line.category,
          ServiceName: line.service,
          SkuId: line.sku,
          SkuMeter: line.meter,
          SkuPriceId: `${line.sku}/${line.price}`,
          ChargeCategory: 'Usage',
          ChargeFrequency: 'Recurring',
          ChargeDescription: line.description,
          PricingCategory: 'Standard',
          PricingQuantity: decimalText(quantity),
          PricingUnit: line.unit,
          ConsumedQuantity: decimalText(quantity),
          ConsumedUnit: line.unit,
          ListUnitPrice: line.price,
          ContractedUnitPrice: line.price,
          ...(line.tags && { Tags: JSON.stringify(line.tags) }),
        },
        amount,
      )
    }
    const own = {
      ...base,
      ...subAccount(source.lines[0]!.account),
      ServiceCategory: source.lines[0]!.category,
      ServiceName: source.lines[0]!.service,
    }
    if (source.taxPercent)
      yield oneAmount(
        { ...own, ChargeCategory: 'Tax', ChargeFrequency: 'Recurring', ChargeDescription: `Sales tax, ${source.taxPercent} %` },
        total.times(source.taxPercent).div(100).round(2),
      )
    if (source.provider === refund.provider && day === refund.day) {
      yield oneAmount(
        {
          ...own,
          ChargeCategory: 'Adjustment',
          ChargeFrequency: 'One-Time',
          ChargeDescription: 'Refund: twelve agent seats paid twice in February',
        },
        new Decimal(refund.amount),
      )
    }
  }
}
