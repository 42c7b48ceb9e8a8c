import type { FoundRate } from '../../money/rates'
import type { RateCard } from '../../ratecard/rate-card'
import type { Working } from '../../working/working'
import { within, type BilledResource, type BilledUse } from '../bill/billed-resource'
import type { Change } from '../bill/finding'
import type { Instruction } from '../instruction'

/** What could be otherwise about something that is charged for. */
export const otherwiseKinds = ['size or class', 'region', 'way to pay', 'provider'] as const
export type OtherwiseKind = (typeof otherwiseKinds)[number]

/** What a resource is priced otherwise with: every provider's present card, and the rates of the day. */
export type OtherwiseContext = { cards: ReadonlyMap<string, RateCard>; rate: (from: string, to: string) => FoundRate | null }

/** Something else that a resource could be charged as: by its key the same for every resource on a SKU. */
export type Offer = {
  key: string
  kind: OtherwiseKind
  /** Such as `otter-4x16`, `High Coast` or `1 year, all in advance`. */
  to: string
  /** What it gives, in words. */
  gives: string
  /** What has to hold for it, in words, such as `4 of 8 vCPU are enough`. */
  asks: string[]
} & (
  | {
      /** What becomes of the resource's charges. */
      changes: Change[]
      /** What is charged then that is not charged now. */
      further: Working[]
      /** What it would cost beside and nobody knows: its cost is not whole. */
      lacks: string[]
      /** What a service can be told to do for it; what is bought, moved or settled otherwise takes a person. */
      instruction?: Instruction
    }
  | { notOffered: string }
)
export type PricedOffer = Extract<Offer, { changes: Change[] }>

/** The uses of a resource that are paid for in the currency of its card's prices. */
export const usesPaid = ({ uses }: BilledResource, currency: string): BilledUse[] =>
  uses.filter(use => use.currency === currency && within(use.cost, 30) !== 0n)
