import { Decimal } from '../../money/decimal'
import { findSize } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'

/** What is stated of lines, in words; `less` where less of it is better. */
const stated: Record<string, { words: (value: string) => string; less?: true }> = {
  iops: { words: value => `${value} operations a second` },
  mbps: { words: value => `${value} MB a second` },
  zones: { words: value => (value === '1' ? 'one zone' : `${value} zones`) },
  storageGb: { words: value => `${value} GB` },
  minimumDays: { words: value => (value === '0' ? 'no least stay' : `kept ${value} days at least`), less: true },
  hoursToFetch: { words: value => (value === '0' ? 'fetched at once' : `fetched within ${value} hours`), less: true },
}
const statedOf = ({ includes = {} }: PriceLine) => Object.entries(includes).filter(([name]) => Object.hasOwn(stated, name))

/** What a line gives, as its card states it: the size, or what is included. */
export function givesWords(line: PriceLine, card: RateCard): string {
  const size = line.variant === null ? undefined : findSize(card, line.variant)
  const parts = size
    ? [`${size.vcpu} vCPU`, `${size.memoryGb} GB`, ...(size.architecture ? [size.architecture] : [])]
    : statedOf(line).map(([name, value]) => stated[name]!.words(value))
  return parts.join(', ')
}

/** Of what a line gives less than another, in words that say what has to be enough. */
export function lessGiven(other: PriceLine, now: PriceLine): string[] {
  return statedOf(now).flatMap(([name, value]) => {
    const has = other.includes && Object.hasOwn(other.includes, name) ? other.includes[name]! : null
    if (has === null) return []
    const { words, less } = stated[name]!
    const isLess = less ? new Decimal(has).gt(value) : new Decimal(has).lt(value)
    return isLess ? [`«${words(has)}» will do`] : []
  })
}
