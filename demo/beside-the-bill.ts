import { Decimal, decimalText } from '../core/money/decimal'
import type { Lookup } from '../core/spend/lookup'
import type { WrittenQuery } from '../core/spend/sentence-address'
import { months } from './calendar'
import { expensiveTuesday, sponsorCredit } from './planted'
import { drawn } from './random'

/** Exchange rates by month, as finance brings them; Norwegian crowns are known from January on only. */
export function exchangeRates(): string {
  const lines = months.flatMap(month => {
    const near = (middle: number, name: string) => (middle * (0.985 + 0.03 * drawn('rate', name, month))).toFixed(4)
    return [`USD,EUR,${month}-01,${near(0.918, 'usd')}`, ...(month >= '2026-01' ? [`NOK,EUR,${month}-01,${near(0.0858, 'nok')}`] : [])]
  })
  return ['from,to,valid from,rate', ...lines].join('\n') + '\n'
}

/** Where the accounts stand, and what they and the containers hand down to everything in them. */
/** What the company has agreed on: an owner on what runs live, and environments by one of three names. */
export const requiredTags = {
  tags: [
    { key: 'owner', sources: ['Brackwater Cloud'], subAccounts: ['live-fleet', 'live-passenger'] },
    { key: 'environment', values: ['live', 'rehearsal', 'build'] },
    { key: 'team' },
  ],
}

export const accountTree = {
  accounts: Object.fromEntries(
    (
      [
        ['live-passenger', ['Skerry Lines', 'Live', 'Passenger'], 'passenger'],
        ['live-freight', ['Skerry Lines', 'Live', 'Freight'], 'freight'],
        ['live-fleet', ['Skerry Lines', 'Live', 'Fleet'], 'fleet'],
        ['shared-platform', ['Skerry Lines', 'Shared'], 'shared'],
        ['rehearsal', ['Skerry Lines', 'Not live'], 'passenger'],
        ['build', ['Skerry Lines', 'Not live'], 'shared'],
        ['sandbox', ['Skerry Lines', 'Not live'], 'shared'],
        ['data-lake', ['Skerry Lines', 'Insight'], 'insight'],
        ['office', ['Skerry Lines', 'Office'], 'office'],
        ['lk-telemetry', ['Skerry Lines', 'Live', 'Fleet'], 'fleet'],
        ['lk-forecast', ['Skerry Lines', 'Insight'], 'insight'],
        ['lk-study', ['Skerry Lines', 'Insight'], 'insight'],
      ] as const
    ).map(([name, path, division]) => [`acc-${name}`, { path: [...path], tags: { division } }]),
  ),
  containerTags: { passenger: { season: 'summer' }, 'passenger/departure-boards': { season: 'all year' }, fleet: { season: 'all year' } },
}

const always = { from: null, until: null }
/** Which of finance's accounts a team's cost is booked on, and where the team sits; the desk of freight moved in July. */
export const ledgerLookup: Lookup = {
  by: 'Tags/team',
  fields: ['ledger account', 'site'],
  entries: [
    ...(['booking', 'passenger-app', 'loyalty'] as const).map(key => ({
      key,
      ...always,
      values: { 'ledger account': '6410 Passenger systems', site: 'Harbour Street' },
    })),
    { key: 'freight-desk', from: null, until: '2026-07-01', values: { 'ledger account': '6420 Freight systems', site: 'Harbour Street' } },
    { key: 'freight-desk', from: '2026-07-01', until: null, values: { 'ledger account': '6420 Freight systems', site: 'North Quay' } },
    { key: 'customs', ...always, values: { 'ledger account': '6420 Freight systems', site: 'North Quay' } },
    ...['vessel-telemetry', 'crew-roster', 'maintenance'].map(key => ({
      key,
      ...always,
      values: { 'ledger account': '6430 Fleet systems', site: 'Dry Dock' },
    })),
    ...['data-lake', 'demand-forecast'].map(key => ({
      key,
      ...always,
      values: { 'ledger account': '6440 Insight', site: 'Harbour Street' },
    })),
    ...['network', 'security', 'support', 'platform'].map(key => ({
      key,
      ...always,
      values: { 'ledger account': '6490 Shared systems', site: 'Harbour Street' },
    })),
  ],
}

/** A supplier that knows nothing of FOCUS: semicolons, days first, decimal commas, a sum below. Dropped by hand under Sources. */
export function foreignBill(): string {
  const rows: string[] = []
  let total = new Decimal(0)
  for (let day = 1; day <= 31; day++) {
    for (const [pier, plan, units, price] of [
      ['Alderholm pier', 'Quay net 100', 24, '0.85'],
      ['Birch sound', 'Quay net 50', 24, '0.52'],
      ['Head office', 'Office net', 24, '1.40'],
    ] as const) {
      const used = Math.round(units * (0.9 + 0.2 * drawn('wifi', pier, String(day))) * 10) / 10
      const cost = new Decimal(used).times(price)
      total = total.plus(cost)
      rows.push(
        [
          `${String(day).padStart(2, '0')}.10.2026`,
          pier,
          plan,
          String(used).replace('.', ','),
          'Hours',
          decimalText(cost).replace('.', ','),
        ].join(';'),
      )
    }
  }
  return ['Datum;Site;Plan;Usage;Unit;Betrag EUR', ...rows, `Summe;;;;;${decimalText(total).replace('.', ',')}`].join('\r\n') + '\r\n'
}

type Sentence = { id: string; name: string; folder: string; description: string; query: WrittenQuery }

/** Sentences that the analyst keeps for everyone. */
export const savedSentences: Sentence[] = [
  {
    name: 'Month so far by service',
    folder: 'Every morning',
    description: 'What this month has cost, day by day, beside the same days of the month before.',
    query: {},
  },
  {
    name: 'Yesterday’s week by account',
    folder: 'Every morning',
    description: 'The last seven days by sub account: what stands out?',
    query: { by: 'SubAccountName', period: 'last-7' },
  },
  {
    name: 'Untagged money',
    folder: 'Ownership',
    description: 'Usage without a team, by sub account and service, last whole month.',
    query: { by: ['SubAccountName', 'ServiceName'], period: 'last-month', keep: ['Tags/team', 'ChargeCategory=Usage'] },
  },
  {
    name: 'Teams, six months',
    folder: 'Ownership',
    description: 'Effective cost by team month by month; spellings counted as one.',
    query: { by: 'Tags/team', period: 'six-months', each: 'month', across: 'start' },
  },
  {
    name: 'Bill by account, service and month',
    folder: 'Month end',
    description: 'The pivot that finance asks for: sums to the bill.',
    query: {
      cost: 'billed',
      by: ['SubAccountName', 'ServiceName'],
      period: 'twelve-months',
      each: 'month',
      across: 'start',
      columns: 'none',
    },
  },
  {
    name: 'Why did last month move?',
    folder: 'Month end',
    description: 'Last month against the one before: quantity, price, new and gone.',
    query: { by: 'ServiceName', period: 'last-month', show: 'comparison' },
  },
  {
    name: 'Everything in euro',
    folder: 'Month end',
    description: 'All currencies at each day’s rate; what has no rate stands apart.',
    query: { by: 'ProviderName', period: 'last-month', in: 'EUR' },
  },
  {
    name: 'Telemetry without its credit',
    folder: 'Hidden costs',
    description: 'A sponsor’s credit hides nearly all of this account’s use.',
    query: { currency: 'USD', keep: [`SubAccountName=${sponsorCredit.account}`, 'ChargeCategory=Usage'], period: 'last-month' },
  },
  {
    name: 'Charged for merely existing',
    folder: 'Hidden costs',
    description: 'What costs the same whether anybody uses it, by service.',
    query: { by: ['ChargedFor', 'ServiceName'], period: 'last-month' },
  },
  {
    name: 'Managed services whole',
    folder: 'Hidden costs',
    description: 'Services with what they created under other services.',
    query: { by: 'ServiceWhole', period: 'last-month' },
  },
  {
    name: 'Log search, hour by hour',
    folder: 'Unusual days',
    description: 'The Tuesday on which a rehearsal searched the logs.',
    query: {
      keep: ['ServiceName=Log search', 'SubAccountName=rehearsal'],
      from: expensiveTuesday.day,
      to: '2026-11-18',
      each: 'hour',
      by: 'SkuMeter',
    },
  },
  {
    name: 'Machine sizes and families',
    folder: 'Rates',
    description: 'Servers by family and size with their effective unit price.',
    query: {
      cost: 'price',
      by: ['SkuPriceDetails/InstanceSeries', 'SkuPriceDetails/InstanceType'],
      period: 'last-month',
      each: 'month',
      chart: 'lines',
    },
  },
].map((sentence, i) => ({
  ...sentence,
  query: sentence.query as WrittenQuery,
  id: `00000000-0000-4000-9000-${String(i + 1).padStart(12, '0')}`,
}))

/** An invoice as an issuer writes it: the month's charges rounded to cents, and one with a fee that no charge has. */
export type InvoiceSum = { issuer: string; invoiceId: string; month: string; currency: string; total: Decimal; tax: Decimal }

export function invoiceLines(sums: Iterable<InvoiceSum>): string {
  const rows = [...sums].map(({ issuer, invoiceId, month, currency, total, tax }) => {
    const fee = issuer === 'Larkfield Compute' ? 180 : 0
    return [issuer, invoiceId, month, currency, total.plus(fee).toFixed(2), tax.toFixed(2)].join(',')
  })
  return ['issuer,invoice,month,currency,total,tax', ...rows].join('\n') + '\n'
}
