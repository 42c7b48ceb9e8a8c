import { findSize, hasMeter, variantsOf } from '../../ratecard/find-price'
import { broughtAlong } from '../../ratecard/own-licence'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { add, evaluate, input, multiply, type Working } from '../../working/working'
import { wayToPay, type WayToPay } from '../estimate'
import { wayName } from '../pricing/ways-to-pay'
import { choice, countField, hoursField, meansVariant, number, variantChoice, words } from './field'
import type { Builder, Charge, ComponentKind } from './kind'

export const sharedHost = 'shared host'
export const dedicatedHost = 'dedicated host'
export const openSystem = 'open, no licence'

/**
 * Operating systems that a card runs in a region: the open ones, licensed ones, and licensed ones with one's own licence where the card
 * allows it.
 */
export function systemsOf(card: RateCard, region: string): string[] {
  return [openSystem, ...variantsOf(card, 'system-vcpu-hour', region)]
}

/** The choice of a system; it is kept when a row stands elsewhere, or the row is not offered there. */
export const systemField = (help: string) =>
  choice('system', 'system', systemsOf, { help, means: meansVariant('system-vcpu-hour', openSystem) })

/** The prepared image that machines start from: uplifts can be attached to it. */
export const imageField = {
  type: 'text',
  name: 'image',
  label: 'image',
  maxLength: 120,
  usual: '',
  own: true,
  help: 'Name of the prepared image that they start from, where there is one; uplifts can be attached to it.',
} as const

const offered = new WeakMap<RateCard, Map<string, WayToPay[]>>()

/** Ways to pay that a meter's lines have in a region. */
export function waysOf(card: RateCard, region: string, meter: PriceLine['meter']): WayToPay[] {
  const known = offered.get(card) ?? offered.set(card, new Map()).get(card)!
  const key = `${meter} ${region}`
  const found = known.get(key)
  if (found) return found
  const names = new Set(card.prices.filter(p => p.meter === meter && p.region === region).flatMap(p => (p.commitments ?? []).map(wayName)))
  const ways = wayToPay.options.filter(way => way === 'on-demand' || names.has(way))
  known.set(key, ways)
  return ways
}

/** The field in which one chooses how to pay. No term is chosen for anyone. */
export const paysField = (meter: PriceLine['meter']) =>
  choice('pays', 'payment', (card, region) => waysOf(card, region, meter), {
    column: 'pays',
    usual: () => 'on-demand',
    help: 'On-demand, or a commitment of one or three years. A commitment is charged for all hours; the peak stays on-demand.',
  })

/** The smallest size that takes the system and host and is no smaller; null when there is none. */
function smallestInstead(card: RateCard, region: string, fits: (size: string) => boolean, atLeast: { vcpu: number; memoryGb: number }) {
  const price = (size: string) =>
    Number(card.prices.find(p => p.meter === 'server-hour' && p.region === region && p.variant === size)?.tiers[0]!.price ?? Infinity)
  return (
    variantsOf(card, 'server-hour', region)
      .filter(size => {
        const facts = findSize(card, size)
        return facts && facts.vcpu >= atLeast.vcpu && facts.memoryGb >= atLeast.memoryGb && fits(size)
      })
      .sort((a, b) => price(a) - price(b))[0] ?? null
  )
}

/** Licence and dedicated host, per vCPU and hour that the machines run. They are not part of a commitment. */
export function systemAndHost(b: Builder, vcpu: number, machineHours: Working, system: string, host: string): Charge[] {
  const vcpuHours = multiply('vCPU hours', [input('vCPU each', vcpu), machineHours], 'vCPU-Hours')
  const parts: Charge[] = []
  if (system !== openSystem) parts.push(b.charge(`licence, ${system}`, b.line('system-vcpu-hour', system, 'system'), vcpuHours))
  if (host === dedicatedHost) parts.push(b.charge('dedicated host', b.line('dedicated-vcpu-hour', null, 'host'), vcpuHours))
  return parts
}

/** Whether a size runs a system. */
export const runsSystem = (card: RateCard, size: string, system: string): boolean =>
  system === openSystem || (findSize(card, size)?.systems?.includes(system.replace(broughtAlong, '')) ?? true)
/** Whether a size can stand on a host. */
export const standsOn = (card: RateCard, size: string, host: string): boolean =>
  host !== dedicatedHost || (findSize(card, size)?.dedicated ?? true)

/** Says before the price jumps that a system or host does not go with a size, and which size would do. */
export function checkSize(b: Builder, size: string, system: string, host: string): { vcpu: number; memoryGb: number } {
  const facts = findSize(b.card, size) ?? b.refuse('size', `${b.card.provider} does not say how large ${size} is`)
  const runs = (name: string) => runsSystem(b.card, name, system)
  const stands = (name: string) => standsOn(b.card, name, host)
  if (runs(size) && stands(size)) return facts
  const instead = smallestInstead(b.card, b.region, name => runs(name) && stands(name), facts)
  const [now, then] = [b.line('server-hour', size, 'size'), instead && b.line('server-hour', instead, 'size')]
  const more =
    then && evaluate(add('', [input('', then.tiers[0]!.price), multiply('', [input('', -1), input('', now.tiers[0]!.price)])])).toFixed()
  const what = runs(size) ? 'cannot stand on a dedicated host' : `does not run ${system}`
  return b.refuse(
    'size',
    `${size} ${what}; ${instead ? `the cheapest as large that does is ${instead}, ${more} ${b.card.currency} an hour more` : 'no size as large does'}`,
    instead ? { value: instead, label: `take ${instead}` } : undefined,
  )
}

/** Refuses more zones than the region has. */
export function checkZones(b: Builder, wanted: string): void {
  const zones = b.card.regions.find(r => r.id === b.region)?.zones
  if (zones !== undefined && Number(wanted) > zones)
    b.refuse('zones', `${b.region} has ${zones} ${zones === 1 ? 'zone' : 'zones'}, not ${wanted}`, {
      value: String(zones),
      label: `take ${zones}`,
    })
}

/** Servers: charged per hour they run; a commitment is charged for every hour. */
export const server: ComponentKind = {
  kind: 'server',
  label: 'Servers',
  words: ['server', 'vm', 'virtual machine', 'machine', 'compute', 'instance', 'host', 'vcpu', 'web server', 'application server'],
  needs: ['server-hour'],
  fields: [
    variantChoice('size', 'size', 'server-hour', {
      column: 'size',
      help: 'The machine: its vCPU and memory. The finder lists all that fit.',
      usual: (card, region) => variantsOf(card, 'server-hour', region)[1] ?? variantsOf(card, 'server-hour', region)[0] ?? '',
    }),
    hoursField(),
    countField('How many run all of these hours: the base.'),
    number('peakCount', 'more in the peak', {
      help: 'Further ones that run in the peak only, always on-demand.',
      whole: true,
      max: 10_000,
      usual: '0',
    }),
    hoursField('Hours a month in which the further ones run.', {
      name: 'peakHours',
      label: 'peak runs',
      column: undefined,
      usual: '5d x 10h',
    }),
    systemField('Operating system; a licensed one costs per vCPU and hour, unless you bring your own licence.'),
    choice('host', 'host', (card, region) => (hasMeter(card, 'dedicated-vcpu-hour', region) ? [sharedHost, dedicatedHost] : [sharedHost]), {
      help: 'Hardware shared with others, or your own at a charge per vCPU.',
    }),
    words('zones', 'zones', ['1', '2', '3'], 'Zones that they are spread over. One zone is one fire away from none.'),
    imageField,
    paysField('server-hour'),
  ],
  price(b) {
    const size = b.text('size')
    const [system, host] = [b.text('system'), b.text('host')]
    const { vcpu } = checkSize(b, size, system, host)
    checkZones(b, b.text('zones'))
    const line = b.line('server-hour', size, 'size')
    const [count, more] = [b.number('count'), b.number('peakCount')]
    const peak = b.typed('peakCount').high.gt(0)
    const base = multiply('base, machine hours', [count, b.hours()], 'h')
    const extra = multiply('peak, machine hours', [more, b.hours('peakHours')], 'h')
    const machineHours = peak ? add('machine hours', [base, extra], 'h') : base
    const vcpuEach = input('vCPU each', vcpu)
    const all = peak ? add('machines', [count, more]) : count
    return {
      running: [b.charge(`${size}, on-demand`, line, base)],
      commitChoices: [{ value: null, label: '', parts: [{ running: 0, count, beyond: null }] }],
      recurring: [...(peak ? [b.charge('peak, on-demand', line, extra)] : []), ...systemAndHost(b, vcpu, machineHours, system, host)],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count: all,
      unitHours: machineHours,
      amounts: [{ unit: 'vCPU', quantity: multiply('vCPU', [all, vcpuEach]), hours: multiply('vCPU hours', [vcpuEach, machineHours]) }],
    }
  },
}
