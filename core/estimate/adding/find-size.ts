import { Decimal, parseDecimal } from '../../money/decimal'
import { findPrice, findSize } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'

/** A machine by what it is: vCPU, memory in GB, or both. */
export type SizeWanted = { vcpu: Decimal | null; memoryGb: Decimal | null }

const NUMBER = String.raw`(\d+(?:\.\d+)?)`
const BOTH = new RegExp(`^${NUMBER}\\s*(?:v?cpus?)?\\s*[x×,/ ]\\s*${NUMBER}\\s*(?:gb|gib)?(?:\\s*(?:memory|ram))?$`, 'i')
const VCPU = new RegExp(`^${NUMBER}\\s*v?(?:cpus?|cores?)$`, 'i')
const MEMORY = new RegExp(`^${NUMBER}\\s*gb(?:\\s*(?:memory|ram))?$`, 'i')

/** Reads `4 16`, `4x16`, `4 vCPU 16 GB`, `8 vcpu` or `32 GB`; null for anything else. */
export function readSizeWanted(text: string): SizeWanted | null {
  const typed = text.trim()
  const both = BOTH.exec(typed)
  if (both) return { vcpu: parseDecimal(both[1]!), memoryGb: parseDecimal(both[2]!) }
  const vcpu = VCPU.exec(typed)
  if (vcpu) return { vcpu: parseDecimal(vcpu[1]!), memoryGb: null }
  const memory = MEMORY.exec(typed)
  return memory ? { vcpu: null, memoryGb: parseDecimal(memory[1]!) } : null
}

/**
 * Sizes found by what they are: those that are just that first, then those that are larger; each cheapest first.
 * @param meter whose price makes them cheap or dear.
 */
export function sizesLike(wanted: SizeWanted, sizes: readonly string[], card: RateCard, region: string, meter: string): string[] {
  const known = sizes.flatMap(name => {
    const facts = findSize(card, name)
    return facts ? [{ name, facts, price: new Decimal(findPrice(card, meter, region, name)?.tiers[0]!.price ?? '1e12') }] : []
  })
  const is = (of: Decimal | null, value: number) => of === null || of.eq(value)
  const fits = (of: Decimal | null, value: number) => of === null || of.lte(value)
  const byPrice = (list: typeof known) => list.sort((a, b) => a.price.cmp(b.price) || a.name.localeCompare(b.name)).map(({ name }) => name)
  const exact = known.filter(({ facts }) => is(wanted.vcpu, facts.vcpu) && is(wanted.memoryGb, facts.memoryGb))
  const larger = known.filter(
    ({ facts }) => fits(wanted.vcpu, facts.vcpu) && fits(wanted.memoryGb, facts.memoryGb) && !exact.some(e => e.facts === facts),
  )
  return [...byPrice(exact), ...byPrice(larger)]
}
