import { Decimal } from '../../money/decimal'
import type { Meter } from '../../ratecard/meters'
import { highest, p95, type Hourly } from '../../measured/hourly'
import type { MetricName } from '../../measured/metrics'
import { findSize, linesOf } from '../../ratecard/find-price'
import type { PriceLine, RateCard, ServerSize } from '../../ratecard/rate-card'
import { divide, input, multiply } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { paidUse, usesOf, within, type BilledResource, type PaidUse } from '../bill/billed-resource'
import { atPrice, findingOf, monthlyCost, monthlyUnits, wordsOf, type BillFinding, type Change } from '../bill/finding'
import type { Settings, Threshold } from '../detector'
import { runsAlike } from '../runs-alike'
import { measuredSeries, roughly, told } from './measured-series'

export const sizeMetrics: readonly MetricName[] = ['cpu', 'memory']
const headroom: Threshold = { key: 'headroom', label: 'headroom above the 95th hour', unit: '%', usual: 30, least: 0, most: 400 }
const saved: Threshold = { key: 'saved', label: 'the smaller costs less by at least', unit: '%', usual: 10, least: 0, most: 90 }
export const sizeThresholds: readonly Threshold[] = [headroom, saved]

/** What is charged by the hour and size, and what by the vCPU beside it; `type` as connections list it. */
export type Sized = { type: 'server' | 'database'; hour: Meter; vcpus: readonly Meter[] }
export const machines: Sized = { type: 'server', hour: 'server-hour', vcpus: ['system-vcpu-hour', 'dedicated-vcpu-hour'] }
export const databases: Sized = { type: 'database', hour: 'database-hour', vcpus: ['database-engine-vcpu-hour'] }

/**
 * The cheapest size that carries what is used: of 95 in 100 hours the most of processor and memory, and headroom above it. It runs all that
 * the present one does, in the same region; of equal prices the first by name. What is charged by the vCPU falls with them.
 */
export function smallerSize(
  resource: BilledResource,
  sized: Sized,
  settings: Settings,
  measured: (metric: MetricName) => Hourly,
  detector: string,
): BillFinding | null {
  const use = paidUse(resource, sized.hour)
  const now = use && findSize(resource.card!, use.line.variant!)
  if (!use || !now) return null
  const { card } = resource as { card: RateCard }
  const needed = (of: number, metric: MetricName) => (of * p95(measured(metric))! * (100 + settings.headroom!)) / 10_000
  const needs = { vcpu: needed(now.vcpu, 'cpu'), memoryGb: needed(now.memoryGb, 'memory') }
  const to = cheapest(use.line, now, needs, card, settings.saved!)
  if (!to) return null
  const { line, size } = to
  return findingOf(resource, asOtherSize(resource, use, sized, line, { now, then: size }), {
    ...{ detector, of: use.sku, risk: 'some', minutesOfWork: 45, series: [] },
    instruction: { type: sized.type, deed: 'change size', from: now.size, to: size.size },
    title: `${resource.name} would do with «${size.size}» instead of «${now.size}»`,
    measured: [
      series('cpu', measured('cpu'), (size.vcpu / now.vcpu) * 100, size.size, needs.vcpu, `${now.vcpu} vCPU`),
      series('memory', measured('memory'), (size.memoryGb / now.memoryGb) * 100, size.size, needs.memoryGb, `${now.memoryGb} GB`),
    ],
  })
}

/** What another size would cost in place of what is charged now: of the size itself, and of what is charged by the vCPU beside it. */
export function asOtherSize(
  resource: BilledResource,
  use: PaidUse,
  { vcpus }: Sized,
  line: PriceLine,
  { now, then }: { now: ServerSize; then: ServerSize },
): Change[] {
  const card = resource.card!
  const price = { price: dearestPrice(line), sku: line.sku, currency: card.currency }
  const perVcpu = vcpus.flatMap(meter => usesOf(resource, meter)).filter(one => one.currency === use.currency && within(one.cost, 30) > 0n)
  return [
    { use, how: 'cheaper', then: atPrice(then.size, monthlyUnits(resource, use), price, use) },
    ...perVcpu.map(one => ({
      ...{ use: one, how: 'less' as const },
      then: multiply(`${wordsOf(one, card)}, for ${then.vcpu <= now.vcpu ? 'fewer' : 'more'} vCPU`, [
        monthlyCost(resource, one),
        divide('of the vCPU', [input(`vCPU of «${then.size}»`, then.vcpu), input(`vCPU of «${now.size}»`, now.vcpu)]),
      ]),
    })),
  ]
}

function series(metric: 'cpu' | 'memory', hourly: Hourly, full: number, size: string, needed: number, of: string) {
  const unit = metric === 'cpu' ? 'vCPU' : 'GB'
  return measuredSeries(metric, hourly, {
    threshold: { value: told(full), label: `the line is all of «${size}»` },
    said: `Of ${of}, 95 hours in 100 used at most ${told(p95(hourly)!)} %, the highest ${told(highest(hourly.values))} %; with the headroom that is ${roughly(needed)} ${unit}.`,
  })
}

function cheapest(
  line: PriceLine,
  now: ServerSize,
  needs: Pick<ServerSize, 'vcpu' | 'memoryGb'>,
  card: RateCard,
  percent: number,
): { line: PriceLine; size: ServerSize } | null {
  const most = new Decimal(dearestPrice(line)).times(100 - percent).div(100)
  const fitting = linesOf(card, line.meter, line.region).flatMap(other => {
    const size = other.variant === null ? undefined : findSize(card, other.variant)
    if (!size || !runsAlike(size, now) || size.vcpu < needs.vcpu || size.memoryGb < needs.memoryGb) return []
    const isSmaller = size.vcpu < now.vcpu || size.memoryGb < now.memoryGb
    return isSmaller && new Decimal(dearestPrice(other)).lte(most) ? [{ line: other, size }] : []
  })
  const byPrice = fitting.sort(
    (a, b) => new Decimal(dearestPrice(a.line)).cmp(dearestPrice(b.line)) || (a.size.size < b.size.size ? -1 : 1),
  )
  return byPrice[0] ?? null
}
