import type { Meter } from '../ratecard/meters'

/** Units that a set may charge by, beside what it charges for each of something. */
export const upliftUnits = ['GB', 'vCPU', 'users', 'calls', 'seat', 'core'] as const
export type UpliftUnit = (typeof upliftUnits)[number]

/** What use on a bill is of: a component kind, and what its quantity tells of it. */
export type MeterUse = {
  kind: string
  /** Hours in which something ran; so many of a unit, each standing for `times`; or no more than what it costs. */
  tells: 'hours' | { unit: UpliftUnit; times: bigint } | null
}

const of = (kind: string, tells: MeterUse['tells'] = null): MeterUse => ({ kind, tells })
const unit = (name: UpliftUnit, times = 1n) => ({ unit: name, times })

/**
 * The component kind that a meter is of. Several kinds draw on some meters: what stands on a bill is then the plainest of them (an archive
 * is object storage, the machines of a desktop fleet are servers).
 */
const uses = {
  'server-hour': of('server', 'hours'),
  'system-vcpu-hour': of('server'),
  'dedicated-vcpu-hour': of('server'),
  'disk-gb-month': of('disk', unit('GB')),
  'disk-iops-month': of('disk'),
  'disk-throughput-month': of('disk'),
  'disk-transactions': of('disk'),
  'snapshot-gb-month': of('snapshot', unit('GB')),
  'object-gb-month': of('object-storage', unit('GB')),
  'object-write-1000': of('object-storage'),
  'object-read-1000': of('object-storage'),
  'object-retrieval-gb': of('object-storage'),
  'object-watch-1000': of('object-storage'),
  'transfer-out-gb': of('internet-transfer', unit('GB')),
  'transfer-region-gb': of('internal-transfer', unit('GB')),
  'transfer-zone-gb': of('internal-transfer', unit('GB')),
  'gateway-hour': of('gateway', 'hours'),
  'gateway-gb': of('gateway'),
  'load-balancer-hour': of('load-balancer', 'hours'),
  'load-balancer-gb': of('load-balancer'),
  'database-hour': of('database', 'hours'),
  'database-engine-vcpu-hour': of('database'),
  'database-gb-month': of('database', unit('GB')),
  'database-iops-month': of('database'),
  'database-backup-gb-month': of('database'),
  'database-tier-hour': of('database-tier', 'hours'),
  'database-tier-gb-month': of('database-tier'),
  'function-gb-second': of('functions'),
  'function-call': of('functions', unit('calls', 1_000_000n)),
  'function-warm-gb-hour': of('functions'),
  'app-hour': of('app-hosting', 'hours'),
  'logs-ingested-gb': of('logs', unit('GB')),
  'logs-kept-gb-month': of('logs'),
  'logs-searched-gb': of('logs'),
  'metric-month': of('metered'),
  'alarm-month': of('metered'),
  'encoding-minute': of('media-encoding'),
  'encoding-gb': of('media-encoding'),
  'indexing-minute': of('media-encoding'),
  'identity-user': of('identity', unit('users')),
  'identity-feature-user': of('identity'),
  'desktop-user': of('desktop-fleet', unit('users')),
  'support-share': null,
  'licence-seat': of('licence', unit('seat')),
  'licence-core': of('licence', unit('core')),
  'share-gb-month': of('file-share', unit('GB')),
  'share-throughput-month': of('file-share'),
  'recovery-server': of('recovery'),
  'analytics-scanned-tb': of('metered'),
} as const satisfies Record<Meter, MeterUse | null>

/** What use of a meter is of; null for what bears no uplift. A meter that only its card knows is a metered line. */
export const useOf = (meter: string): MeterUse | null =>
  Object.hasOwn(uses, meter) ? (uses as Record<string, MeterUse | null>)[meter]! : of('metered')

/** Kinds that use on a bill can be of. */
export const kindsOnBills: ReadonlySet<string> = new Set(['metered', ...Object.values(uses).flatMap(one => (one ? [one.kind] : []))])
