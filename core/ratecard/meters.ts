/** What a price measures: in plain words, in which unit, and whether it is charged for existing or for use. */
export type MeterFacts = { words: string; unit: Unit; charged: Charged }

/** Charged for merely being there, or for what is done with it. */
export type Charged = 'existing' | 'use'

/** Units that prices are for; a card with another one is refused. */
export const units = [
  'Hours',
  'GB-Months',
  'GB',
  'TB',
  'GB-Hours',
  'GB-Seconds',
  'Requests',
  '1000 Requests',
  '1000000 Requests',
  'IOPS-Months',
  'MBps-Months',
  'vCPU-Hours',
  'Minutes',
  'Users',
  'Seats',
  'Cores',
  'Servers',
  'Units',
  'Metrics',
  'Alarms',
  'Keys',
  'Certificates',
  'Messages',
  '1000 Objects',
  'Share of Spend',
] as const
export type Unit = (typeof units)[number]

const meter = (words: string, unit: Unit, charged: Charged): MeterFacts => ({ words, unit, charged })

/** The meters that component kinds know. A card may have further ones: they are priced as metered lines. */
export const meters = {
  'server-hour': meter('running, hours', 'Hours', 'existing'),
  'system-vcpu-hour': meter('operating system licence, vCPU hours', 'vCPU-Hours', 'existing'),
  'dedicated-vcpu-hour': meter('on a dedicated host, vCPU hours', 'vCPU-Hours', 'existing'),
  'disk-gb-month': meter('kept, GB-months', 'GB-Months', 'existing'),
  'disk-iops-month': meter('operations bought, months', 'IOPS-Months', 'existing'),
  'disk-throughput-month': meter('throughput bought, MB/s months', 'MBps-Months', 'existing'),
  'disk-transactions': meter('transactions', '1000000 Requests', 'use'),
  'snapshot-gb-month': meter('kept, GB-months', 'GB-Months', 'existing'),
  'object-gb-month': meter('stored, GB-months', 'GB-Months', 'existing'),
  'object-write-1000': meter('writes', '1000 Requests', 'use'),
  'object-read-1000': meter('reads', '1000 Requests', 'use'),
  'object-retrieval-gb': meter('retrieved, GB', 'GB', 'use'),
  'object-watch-1000': meter('objects watched for moving, thousands', '1000 Objects', 'existing'),
  'transfer-out-gb': meter('sent out, GB', 'GB', 'use'),
  'transfer-region-gb': meter('sent to another region, GB', 'GB', 'use'),
  'transfer-zone-gb': meter('sent to another zone, GB', 'GB', 'use'),
  'gateway-hour': meter('existing, hours', 'Hours', 'existing'),
  'gateway-gb': meter('passed, GB', 'GB', 'use'),
  'load-balancer-hour': meter('existing, hours', 'Hours', 'existing'),
  'load-balancer-gb': meter('balanced, GB', 'GB', 'use'),
  'database-hour': meter('running, hours', 'Hours', 'existing'),
  'database-engine-vcpu-hour': meter('engine licence, vCPU hours', 'vCPU-Hours', 'existing'),
  'database-gb-month': meter('kept, GB-months', 'GB-Months', 'existing'),
  'database-iops-month': meter('operations bought, months', 'IOPS-Months', 'existing'),
  'database-backup-gb-month': meter('backup kept, GB-months', 'GB-Months', 'existing'),
  'database-tier-hour': meter('tier, hours', 'Hours', 'existing'),
  'database-tier-gb-month': meter('kept beyond the tier, GB-months', 'GB-Months', 'existing'),
  'function-gb-second': meter('computed, GB-seconds', 'GB-Seconds', 'use'),
  'function-call': meter('calls', '1000000 Requests', 'use'),
  'function-warm-gb-hour': meter('kept warm, GB-hours', 'GB-Hours', 'existing'),
  'app-hour': meter('instance, hours', 'Hours', 'existing'),
  'logs-ingested-gb': meter('ingested, GB', 'GB', 'use'),
  'logs-kept-gb-month': meter('kept, GB-months', 'GB-Months', 'existing'),
  'logs-searched-gb': meter('searched, GB', 'GB', 'use'),
  'metric-month': meter('metrics kept, months', 'Metrics', 'existing'),
  'alarm-month': meter('alarms set, months', 'Alarms', 'existing'),
  'encoding-minute': meter('encoded, minutes', 'Minutes', 'use'),
  'encoding-gb': meter('encoded, GB put out', 'GB', 'use'),
  'indexing-minute': meter('indexed, minutes', 'Minutes', 'use'),
  'identity-user': meter('active users', 'Users', 'use'),
  'identity-feature-user': meter('users with an extra feature', 'Users', 'use'),
  'desktop-user': meter('desktop access, users', 'Users', 'existing'),
  'support-share': meter('support plan, share of the spend', 'Share of Spend', 'use'),
  'licence-seat': meter('seats', 'Seats', 'existing'),
  'licence-core': meter('cores', 'Cores', 'existing'),
  'share-gb-month': meter('kept, GB-months', 'GB-Months', 'existing'),
  'share-throughput-month': meter('throughput bought, MB/s months', 'MBps-Months', 'existing'),
  'recovery-server': meter('protected servers', 'Servers', 'existing'),
  'analytics-scanned-tb': meter('scanned, TB', 'TB', 'use'),
} as const satisfies Record<string, MeterFacts>

/** A meter that component kinds know. */
export type Meter = keyof typeof meters

/** What a meter measures; undefined for one that only its card knows. */
export function meterFacts(name: string): MeterFacts | undefined {
  return (meters as Record<string, MeterFacts>)[name]
}

/** A unit as it is said after "per": `hour`, `GB-month`, `1000 requests`. */
export function unitWords(unit: Unit): string {
  const said = unit.replace(/\b[A-Z][a-z]+/g, word => word.toLowerCase())
  return /^\d/.test(said) || said.endsWith('spend') ? said : said.replace(/s$/, '')
}
