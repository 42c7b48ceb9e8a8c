import type { DecimalText } from '../money/decimal'
import type { Opportunity } from './opportunity'

/** An opportunity as a file lists it. */
export type FiledOpportunity = Pick<
  Opportunity,
  'id' | 'title' | 'resourceId' | 'resourceName' | 'provider' | 'service' | 'subAccountName' | 'region' | 'currency' | 'monthlySaving'
> &
  Pick<Opportunity, 'oneOff' | 'minutesOfWork' | 'risk' | 'confidence' | 'evidence'> & {
    kind: string
    owner: string | null
    centre: string | null
    state: string
    due: string | null
    /** What it adds to the best that can be had; null where another counts it. */
    counted: DecimalText | null
  }

/** The columns of a file of opportunities; amounts are in each line's own currency but for what is counted. */
export const opportunityHeads = [
  ...['Kind', 'What', 'Resource', 'Resource ID', 'Provider', 'Service', 'Sub account', 'Region', 'Owner', 'Cost centre', 'State', 'Due'],
  ...['Currency', 'Saves a month', 'Once', 'Counted', 'Minutes of work', 'Risk', 'Rests on', 'Evidence'],
] as const
export const amountHeads: ReadonlySet<string> = new Set(['Saves a month', 'Once', 'Counted', 'Minutes of work'])

/** The cells of a line, in the order of the heads. */
export function opportunityRow(one: FiledOpportunity): (string | null)[] {
  return [
    ...[one.kind, one.title, one.resourceName, one.resourceId, one.provider, one.service, one.subAccountName, one.region],
    ...[one.owner, one.centre, one.state, one.due],
    ...[one.currency, one.monthlySaving, one.oneOff?.amount ?? null, one.counted, String(one.minutesOfWork), one.risk, one.confidence],
    one.evidence.series.map(({ said }) => said).join(' '),
  ]
}
