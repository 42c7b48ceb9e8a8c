import { addDays, dayNumber, type Day } from '../core/time/day'
import { FIRST_DAY, TODAY, months } from './calendar'
import {
  bookingSpellings,
  demandStudy,
  disksLeftBehind,
  growingSnapshots,
  idleGateways,
  recovery,
  rehearsalZones,
  stoppedDatabase,
  trialMakers,
} from './planted'
import { drawn } from './random'

/** What a resource is charged for. Amounts that follow the traffic are per plain winter day. */
export type Use =
  | { kind: 'server'; size: string }
  | { kind: 'disk'; variant: string; gb: number }
  | { kind: 'objects'; variant: string; gb: number; growthPerMonth: number; writes1000: number; reads1000: number }
  | { kind: 'transfer'; gbPerDay: number }
  | { kind: 'gateway'; gbPerDay: number }
  | { kind: 'database'; size: string; gb: number; stopped?: Day }
  | { kind: 'logs'; ingestedGb: number; keptGb: number; searchedGb: number }
  | { kind: 'load balancer' }
  | { kind: 'snapshot'; gb: number; growthPerMonth?: number }
  | { kind: 'warehouse'; tbPerDay: number }
  | { kind: 'recovery'; servers: number }

export type CloudResource = {
  id: string
  name: string
  type: string
  account: string
  region: string
  product: string
  environment: 'live' | 'rehearsal' | 'build'
  /** First and last day with charges; `until` is exclusive, null while it still runs. */
  since: Day
  until: Day | null
  /** Without the tags of the campaign: they are put on charges by date. */
  tags: Record<string, string>
  use: Use
  /** Whether its use follows the passengers. */
  seasonal: boolean
  /** Id of the resource that made this one, and of the one it protects. */
  createdBy?: string
  protects?: string
}

export type Cloud = 'brackwater' | 'larkfield'

type Spec = {
  product: string
  team: string
  account: string
  region: string
  seasonal: boolean
  servers?: [role: string, size: string, count: number, diskGb: number][]
  databases?: [name: string, size: string, gb: number][]
  objects?: [name: string, variant: string, gb: number, growth: number, writes: number, reads: number][]
  transferGb?: number
  logs?: [ingested: number, kept: number, searched: number]
  loadBalancers?: number
  snapshotsGb?: number[]
  rehearsal?: number
  untagged?: boolean
}

const brackwaterSpecs: Spec[] = [
  {
    product: 'booking-engine',
    team: 'booking',
    account: 'live-passenger',
    region: 'low-coast',
    seasonal: true,
    servers: [
      ['web', 'reed-4x8', 14, 40],
      ['api', 'otter-4x16', 12, 80],
      ['worker', 'otter-2x8', 10, 40],
      ['search', 'heron-4x32', 4, 200],
    ],
    databases: [
      ['booking-db', 'heron-16x128', 2400],
      ['booking-replica', 'heron-16x128', 2400],
      ['seats-db', 'otter-8x32', 600],
    ],
    objects: [
      ['tickets-archive', 'ready', 62_000, 900, 1400, 6200],
      ['booking-exports', 'cool', 18_000, 300, 60, 40],
    ],
    transferGb: 620,
    logs: [190, 16_000, 900],
    loadBalancers: 3,
    snapshotsGb: [2400, 2400, 1200],
    rehearsal: 0.4,
  },
  {
    product: 'passenger-app',
    team: 'passenger-app',
    account: 'live-passenger',
    region: 'low-coast',
    seasonal: true,
    servers: [
      ['api', 'reed-4x8', 10, 40],
      ['push', 'reed-2x4', 6, 20],
    ],
    databases: [['app-db', 'otter-8x32', 500]],
    objects: [['maps-cache', 'ready', 9_000, 120, 300, 9000]],
    transferGb: 540,
    logs: [70, 4_200, 210],
    loadBalancers: 2,
    snapshotsGb: [500],
    rehearsal: 0.4,
  },
  {
    product: 'loyalty',
    team: 'loyalty',
    account: 'live-passenger',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['api', 'otter-2x8', 4, 40],
      ['batch', 'otter-4x16', 2, 100],
    ],
    databases: [['loyalty-db', 'otter-4x16', 400]],
    objects: [['loyalty-mail', 'ready', 1_800, 60, 80, 200]],
    transferGb: 22,
    logs: [9, 700, 40],
    loadBalancers: 1,
    snapshotsGb: [400],
    rehearsal: 0.5,
  },
  {
    product: 'departure-boards',
    team: 'passenger-app',
    account: 'live-passenger',
    region: 'low-coast',
    seasonal: false,
    servers: [['feed', 'reed-4x8', 4, 40]],
    objects: [['boards-media', 'ready', 900, 15, 40, 3000]],
    transferGb: 85,
    logs: [7, 300, 20],
    loadBalancers: 1,
  },
  {
    product: 'ticket-scanner',
    team: 'booking',
    account: 'live-passenger',
    region: 'low-coast',
    seasonal: true,
    servers: [['gate', 'reed-2x4', 8, 20]],
    databases: [['scan-db', 'otter-4x16', 300]],
    transferGb: 140,
    logs: [14, 600, 30],
    loadBalancers: 1,
    rehearsal: 0.5,
  },
  {
    product: 'freight-desk',
    team: 'freight-desk',
    account: 'live-freight',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['web', 'otter-2x8', 6, 60],
      ['planner', 'heron-8x64', 3, 200],
    ],
    databases: [
      ['freight-db', 'heron-8x64', 1400],
      ['freight-replica', 'heron-8x64', 1400],
    ],
    objects: [['waybills', 'ready', 26_000, 420, 500, 900]],
    transferGb: 120,
    logs: [32, 2_800, 160],
    loadBalancers: 2,
    snapshotsGb: [1400, 700],
    rehearsal: 0.4,
  },
  {
    product: 'customs-link',
    team: 'customs',
    account: 'live-freight',
    region: 'north-fjord',
    seasonal: false,
    servers: [['link', 'otter-4x16', 4, 80]],
    databases: [['customs-db', 'otter-4x16', 350]],
    objects: [['declarations', 'cool', 14_000, 200, 90, 60]],
    transferGb: 30,
    logs: [12, 1_500, 60],
    loadBalancers: 1,
    snapshotsGb: [350],
    rehearsal: 0.5,
  },
  {
    product: 'crew-roster',
    team: 'crew-roster',
    account: 'live-fleet',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['web', 'reed-4x8', 3, 40],
      ['solver', 'heron-8x64', 2, 120],
    ],
    databases: [['roster-db', 'heron-4x32', 700]],
    transferGb: 14,
    logs: [8, 500, 30],
    loadBalancers: 1,
    snapshotsGb: [700],
    rehearsal: 0.5,
  },
  {
    product: 'maintenance-log',
    team: 'maintenance',
    account: 'live-fleet',
    region: 'low-coast',
    seasonal: false,
    servers: [['app', 'otter-4x16', 4, 100]],
    databases: [['parts-db', 'otter-4x16', 450]],
    objects: [['hull-pictures', 'ready', 31_000, 700, 120, 300]],
    transferGb: 26,
    logs: [6, 350, 20],
    loadBalancers: 1,
    snapshotsGb: [450],
  },
  {
    product: 'data-lake',
    team: 'data-lake',
    account: 'data-lake',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['ingest', 'heron-4x32', 6, 400],
      ['query', 'heron-8x64', 6, 600],
    ],
    databases: [['lake-catalogue', 'otter-4x16', 200]],
    objects: [
      ['lake-raw', 'ready', 118_000, 2600, 900, 1600],
      ['lake-history', 'deep', 240_000, 2000, 20, 2],
    ],
    transferGb: 95,
    logs: [22, 1_800, 110],
    snapshotsGb: [3000, 3000, 2000, 900],
  },
  {
    product: 'identity',
    team: 'security',
    account: 'shared-platform',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['login', 'otter-2x8', 4, 40],
      ['audit', 'otter-4x16', 2, 300],
    ],
    databases: [['identity-db', 'otter-4x16', 200]],
    transferGb: 18,
    logs: [30, 4_000, 140],
    loadBalancers: 1,
    snapshotsGb: [200],
  },
  {
    product: 'network',
    team: 'network',
    account: 'shared-platform',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['resolver', 'reed-2x4', 4, 20],
      ['firewall', 'reed-8x16', 4, 40],
    ],
    transferGb: 44,
    logs: [26, 1_200, 60],
  },
  {
    product: 'monitoring',
    team: 'platform',
    account: 'shared-platform',
    region: 'low-coast',
    seasonal: false,
    servers: [
      ['metrics', 'heron-8x64', 4, 900],
      ['dashboards', 'otter-2x8', 3, 60],
    ],
    objects: [['metrics-archive', 'cool', 40_000, 800, 160, 30]],
    transferGb: 9,
    logs: [40, 3_000, 260],
    snapshotsGb: [900, 900],
  },
  {
    product: 'helpdesk-tools',
    team: 'support',
    account: 'shared-platform',
    region: 'low-coast',
    seasonal: false,
    servers: [['app', 'otter-2x8', 3, 60]],
    databases: [['helpdesk-db', 'otter-2x8', 120]],
    transferGb: 6,
    logs: [3, 150, 10],
    loadBalancers: 1,
  },
  {
    product: 'build-farm',
    team: 'platform',
    account: 'build',
    region: 'low-coast',
    seasonal: false,
    servers: [['runner', 'reed-8x16', 14, 120]],
    objects: [['artefacts', 'ready', 22_000, 500, 700, 1800]],
    transferGb: 36,
    logs: [10, 400, 30],
  },
  {
    product: 'intranet',
    team: 'office',
    account: 'office',
    region: 'north-fjord',
    seasonal: false,
    servers: [
      ['web', 'reed-2x4', 3, 40],
      ['files', 'otter-4x16', 2, 1800],
    ],
    databases: [['intranet-db', 'otter-2x8', 150]],
    transferGb: 12,
    logs: [2, 120, 8],
    snapshotsGb: [1800],
  },
  {
    product: 'document-store',
    team: 'office',
    account: 'office',
    region: 'north-fjord',
    seasonal: false,
    servers: [['index', 'otter-4x16', 2, 300]],
    objects: [['documents', 'ready', 38_000, 450, 200, 700]],
    transferGb: 20,
    logs: [3, 140, 8],
  },
]

const larkfieldSpecs: Spec[] = [
  {
    product: 'telemetry-stream',
    team: 'vessel-telemetry',
    account: 'lk-telemetry',
    region: 'lk-alpha',
    seasonal: true,
    servers: [
      ['stream', 'slate six', 5, 200],
      ['decode', 'slate three', 8, 60],
    ],
    objects: [['ais-history', 'hot', 44_000, 900, 2600, 400]],
    transferGb: 60,
  },
  {
    product: 'demand-forecast',
    team: 'demand-forecast',
    account: 'lk-forecast',
    region: 'lk-alpha',
    seasonal: false,
    servers: [
      ['train', 'slate eight', 3, 400],
      ['serve', 'slate four', 4, 80],
    ],
    objects: [
      ['features', 'hot', 26_000, 500, 300, 900],
      ['models', 'cold', 12_000, 250, 20, 10],
    ],
    transferGb: 18,
  },
  {
    product: 'pricing-study',
    team: 'demand-forecast',
    account: 'lk-study',
    region: 'lk-beta',
    seasonal: false,
    servers: [['notebook', 'slate five', 3, 150]],
    objects: [['study-data', 'hot', 5_000, 80, 40, 60]],
    transferGb: 4,
    untagged: true,
  },
]

const shipNames = [
  'alder',
  'birch',
  'cedar',
  'dunlin',
  'eider',
  'fulmar',
  'gannet',
  'heather',
  'islay-rose',
  'juniper',
  'kestrel',
  'lapwing',
  'merlin',
  'nightjar',
]
const pierCount = 31

const code = (key: string) =>
  Math.floor(drawn('id', key) * 36 ** 6)
    .toString(36)
    .padStart(6, '0')

function builder(cloud: Cloud) {
  const prefix = cloud === 'brackwater' ? 'bw' : 'lk'
  const list: CloudResource[] = []
  return {
    list,
    put(resource: Omit<CloudResource, 'id'>) {
      list.push({
        id: `${prefix}:${resource.region}:${resource.type.replace(/ /g, '-').toLowerCase()}:${code(`${cloud} ${resource.account} ${resource.name} ${resource.since}`)}`,
        ...resource,
      })
    },
  }
}

function fromSpec(spec: Spec, put: (resource: Omit<CloudResource, 'id'>) => void): void {
  const environments = [{ environment: 'live' as const, account: spec.account, factor: 1, prefix: '' }]
  const all = spec.rehearsal
    ? [...environments, { environment: 'rehearsal' as const, account: 'rehearsal', factor: spec.rehearsal, prefix: 'rehearsal-' }]
    : environments
  for (const { environment, account, factor, prefix } of all) {
    const tags = (index: number): Record<string, string> => {
      if (spec.untagged) return {}
      // the booking team's tags are spelt in four ways; one in seven rehearsal machines has no team at all
      const spelling = spec.team === 'booking' ? bookingSpellings[[0, 0, 0, 1, 0, 2, 0, 3, 0, 1][index % 10]!]! : spec.team
      const owned = environment === 'live' || drawn('owner', spec.product, index) > 0.14
      return { ...(owned && { team: spelling }), product: spec.product, environment }
    }
    const base = {
      account,
      region: spec.region,
      product: spec.product,
      environment,
      seasonal: spec.seasonal && environment === 'live',
      since: FIRST_DAY,
      until: null,
    }
    let index = 0
    const name = (text: string) => `${prefix}${spec.product}-${text}`
    for (const [role, size, count, diskGb] of spec.servers ?? []) {
      const machines = Math.max(1, Math.round(count * factor * 1.3))
      for (let i = 1; i <= machines; i++) {
        const own = { ...base, tags: tags(index++), name: name(`${role}-${String(i).padStart(2, '0')}`) }
        // a third of a seasonal product's machines run from May to September only
        const summerOnly = spec.seasonal && environment === 'live' && i > Math.ceil(machines * 0.62)
        const spans = summerOnly ? [['2026-05-04', '2026-09-28'] as const] : [[FIRST_DAY, null] as const]
        for (const [since, until] of spans) {
          put({ ...own, since, until, type: 'Server', use: { kind: 'server', size } })
          put({
            ...own,
            since,
            until,
            name: `${own.name}-disk`,
            type: 'Disk',
            use: {
              kind: 'disk',
              variant: spec.account.startsWith('lk-')
                ? 'standard'
                : drawn('old disk', own.name) < 0.12
                  ? 'plain, old'
                  : diskGb >= 200
                    ? 'steady'
                    : 'plain',
              gb: diskGb,
            },
          })
          if (!spec.account.startsWith('lk-'))
            put({
              ...own,
              since,
              until,
              name: `${own.name}-snapshot`,
              type: 'Snapshot',
              use: { kind: 'snapshot', gb: Math.round(diskGb * 0.6) },
            })
        }
      }
    }
    for (const [db, size, gb] of spec.databases ?? []) {
      if (environment === 'rehearsal' && db.includes('replica')) continue
      const rehearsalSize = size.startsWith('heron') ? 'heron-2x16' : 'otter-2x8'
      put({
        ...base,
        tags: tags(index++),
        name: `${prefix}${db}`,
        type: 'Database',
        use: {
          kind: 'database',
          size: environment === 'live' ? size : rehearsalSize,
          gb: Math.round(gb * (environment === 'live' ? 1 : 0.25)),
        },
      })
    }
    for (const [bucket, variant, gb, growth, writes, reads] of environment === 'live' ? (spec.objects ?? []) : []) {
      put({
        ...base,
        tags: tags(0),
        name: bucket,
        type: 'Object store',
        use: { kind: 'objects', variant, gb, growthPerMonth: growth, writes1000: writes, reads1000: reads },
      })
    }
    if (spec.transferGb)
      put({
        ...base,
        tags: tags(0),
        name: name('internet'),
        type: 'Internet transfer',
        use: { kind: 'transfer', gbPerDay: Math.round(spec.transferGb * (environment === 'live' ? 1 : 0.04)) + 1 },
      })
    if (spec.logs) {
      const [ingestedGb, keptGb, searchedGb] = spec.logs.map(gb => (environment === 'live' ? gb : Math.max(1, Math.round(gb * 0.12)))) as [
        number,
        number,
        number,
      ]
      put({ ...base, tags: tags(0), name: name('logs'), type: 'Log group', use: { kind: 'logs', ingestedGb, keptGb, searchedGb } })
    }
    for (let i = 1; i <= Math.max(environment === 'live' ? (spec.loadBalancers ?? 0) : Math.min(1, spec.loadBalancers ?? 0), 0); i++)
      put({ ...base, tags: tags(index++), name: name(`lb-${i}`), type: 'Load balancer', use: { kind: 'load balancer' } })
    for (const [i, gb] of (environment === 'live' ? (spec.snapshotsGb ?? []) : []).entries())
      put({ ...base, tags: tags(index++), name: name(`snapshot-${i + 1}`), type: 'Snapshot', use: { kind: 'snapshot', gb } })
  }
}

/** Everything that ran at Brackwater Cloud in the demo's months. */
export function brackwaterInventory(): CloudResource[] {
  const { list, put } = builder('brackwater')
  for (const spec of brackwaterSpecs) fromSpec(spec, put)
  const plain = {
    product: 'vessel-telemetry',
    environment: 'live' as const,
    seasonal: false,
    since: FIRST_DAY,
    until: null,
    region: 'low-coast',
  }
  for (const ship of shipNames) {
    const tags = { team: 'vessel-telemetry', product: 'vessel-telemetry', environment: 'live' }
    put({ ...plain, account: 'live-fleet', tags, name: `ais-${ship}`, type: 'Server', use: { kind: 'server', size: 'otter-2x8' } })
    put({ ...plain, account: 'live-fleet', tags, name: `ais-${ship}-disk`, type: 'Disk', use: { kind: 'disk', variant: 'plain', gb: 120 } })
    put({
      ...plain,
      account: 'live-fleet',
      tags,
      name: `ais-${ship}-messages`,
      type: 'Object store',
      use: { kind: 'objects', variant: 'ready', gb: 1_100, growthPerMonth: 45, writes1000: 60, reads1000: 30 },
    })
  }
  for (let pier = 1; pier <= pierCount; pier++) {
    const number = String(pier).padStart(2, '0')
    const tags = { team: 'passenger-app', product: 'departure-boards', environment: 'live' }
    const board = { ...plain, product: 'departure-boards', account: 'live-passenger', tags }
    put({ ...board, name: `pier-${number}-board`, type: 'Server', use: { kind: 'server', size: 'reed-1x2' } })
    put({
      ...board,
      tags: { ...tags, team: 'booking', product: 'ticket-scanner' },
      name: `pier-${number}-gate`,
      type: 'Server',
      use: { kind: 'server', size: 'reed-1x2' },
    })
    put({
      ...board,
      tags: { ...tags, team: 'booking', product: 'ticket-scanner' },
      name: `pier-${number}-gate-disk`,
      type: 'Disk',
      use: { kind: 'disk', variant: 'plain', gb: 20 },
    })
    put({ ...board, name: `pier-${number}-board-disk`, type: 'Disk', use: { kind: 'disk', variant: 'plain', gb: 20 } })
  }
  for (const [account, region, gb] of [
    ['live-passenger', 'low-coast', 430],
    ['live-freight', 'low-coast', 150],
    ['live-freight', 'north-fjord', 40],
    ['live-fleet', 'low-coast', 210],
    ['shared-platform', 'low-coast', 95],
    ['data-lake', 'low-coast', 320],
    ['rehearsal', 'low-coast', 60],
    ['build', 'low-coast', 180],
    ['office', 'north-fjord', 24],
  ] as const) {
    put({
      ...plain,
      account,
      region,
      product: 'network',
      tags: { team: 'network', product: 'network', environment: 'live' },
      name: `gw-${account}-${region}`,
      type: 'Gateway',
      use: { kind: 'gateway', gbPerDay: gb },
    })
  }
  for (const gateway of idleGateways) {
    put({
      ...plain,
      account: gateway.account,
      region: gateway.region,
      product: 'network',
      tags: gateway.account === 'live-fleet' ? { team: 'vessel-telemetry', product: 'test-rig' } : {},
      name: gateway.name,
      type: 'Gateway',
      use: { kind: 'gateway', gbPerDay: 6 },
    })
  }
  // the test rig itself, taken out in April
  put({
    ...plain,
    account: 'live-fleet',
    product: 'test-rig',
    tags: {},
    name: 'test-rig-alder',
    type: 'Server',
    until: idleGateways[0]!.rigRemoved,
    use: { kind: 'server', size: 'otter-4x16' },
  })
  for (let i = 1; i <= disksLeftBehind.count; i++)
    put({
      ...plain,
      ...{ account: disksLeftBehind.account, product: 'test-rig', type: 'Disk', name: `${disksLeftBehind.machine}-disk-${i}` },
      tags: { team: 'vessel-telemetry', product: 'test-rig' },
      use: { kind: 'disk', variant: disksLeftBehind.variant, gb: disksLeftBehind.gb },
    })
  put({
    ...plain,
    ...{ account: stoppedDatabase.account, product: 'data-lake', type: 'Database', name: stoppedDatabase.name },
    tags: { team: 'data-lake', product: 'data-lake', environment: 'live' },
    use: { kind: 'database', size: stoppedDatabase.size, gb: stoppedDatabase.gb, stopped: stoppedDatabase.stopped },
  })
  put({
    ...plain,
    ...{ account: growingSnapshots.account, product: 'maintenance-log', type: 'Snapshot', name: growingSnapshots.name },
    since: growingSnapshots.since,
    tags: { team: 'maintenance', product: 'maintenance-log', environment: 'live' },
    use: { kind: 'snapshot', gb: growingSnapshots.gb, growthPerMonth: growingSnapshots.growthPerMonth },
  })
  for (let i = 1; i <= rehearsalZones.count; i++)
    put({
      ...plain,
      ...{ account: rehearsalZones.account, product: 'booking-engine', environment: 'rehearsal', type: 'Disk' },
      tags: { team: 'booking', product: 'booking-engine', environment: 'rehearsal' },
      name: `rehearsal-booking-store-${i}`,
      use: { kind: 'disk', variant: rehearsalZones.variant, gb: rehearsalZones.gb },
    })
  for (let i = 1; i <= demandStudy.machines; i++) {
    const study = {
      ...plain,
      account: demandStudy.account,
      region: demandStudy.region,
      product: 'demand-study',
      since: demandStudy.start,
      until: demandStudy.end,
      tags: {},
    }
    put({ ...study, name: `demand-study-${String(i).padStart(2, '0')}`, type: 'Server', use: { kind: 'server', size: demandStudy.size } })
  }
  putShortLived(put)
  putRecovery(list, put)
  return list
}

/** A managed service that protects the booking servers and makes copies of them under another service. */
function putRecovery(list: CloudResource[], put: (resource: Omit<CloudResource, 'id'>) => void): void {
  const { account, region, product, protectedServers, gb } = recovery
  const servers = list
    .filter(r => r.product === product && r.account === account && r.type === 'Server' && r.until === null)
    .slice(0, protectedServers)
  const own = {
    account,
    region,
    product,
    environment: 'live' as const,
    seasonal: false,
    since: recovery.since,
    until: null,
    tags: { team: 'booking', product, environment: 'live' },
  }
  put({ ...own, name: recovery.name, type: 'Recovery vault', use: { kind: 'recovery', servers: servers.length } })
  const createdBy = list.at(-1)!.id
  for (const server of servers)
    put({ ...own, createdBy, protects: server.id, name: `copy-of-${server.name}`, type: 'Snapshot', use: { kind: 'snapshot', gb } })
}

/** Machines that teams start for some days: in the sandbox without tags, for builds and rehearsals with them. */
function putShortLived(put: (resource: Omit<CloudResource, 'id'>) => void): void {
  const kinds = [
    {
      account: 'sandbox',
      region: 'north-fjord',
      name: 'trial',
      aMonth: 26,
      size: ['reed-2x4', 'otter-4x16', 'reed-4x8'],
      longest: 26,
      tags: {},
      environment: 'build' as const,
    },
    {
      account: 'build',
      region: 'low-coast',
      name: 'pipeline',
      aMonth: 30,
      size: ['reed-4x8', 'reed-8x16'],
      longest: 9,
      tags: { team: 'platform', product: 'build-farm', environment: 'build' },
      environment: 'build' as const,
    },
    {
      account: 'rehearsal',
      region: 'low-coast',
      name: 'load-test',
      aMonth: 10,
      size: ['reed-4x8', 'otter-4x16'],
      longest: 12,
      tags: { product: 'booking-engine', environment: 'rehearsal' },
      environment: 'rehearsal' as const,
    },
  ]
  for (const month of months) {
    for (const kind of kinds) {
      for (let i = 1; i <= kind.aMonth; i++) {
        const name = `${kind.name}-${month.slice(2, 4)}${month.slice(5)}-${String(i).padStart(2, '0')}`
        const since = addDays(`${month}-01`, Math.floor(drawn('since', name) * 27))
        if (since >= TODAY) continue
        const until = addDays(since, 2 + Math.floor(drawn('days', name) * kind.longest))
        const size = kind.size[Math.floor(drawn('size', name) * kind.size.length)]!
        const own = {
          account: kind.account,
          region: kind.region,
          product: kind.tags.product ?? 'trial',
          environment: kind.environment,
          since,
          until,
          tags: kind.tags as Record<string, string>,
          seasonal: false,
        }
        put({ ...own, name, type: 'Server', use: { kind: 'server', size } })
        if (i % 2 === 0)
          put({
            ...own,
            name: `${name}-disk`,
            until: addDays(until, i % 6 === 0 ? 40 : 0),
            type: 'Disk',
            use: { kind: 'disk', variant: 'plain', gb: 60 },
          })
      }
    }
  }
}

/** Everything that ran at Larkfield Compute in the demo's months. */
export function larkfieldInventory(): CloudResource[] {
  const { list, put } = builder('larkfield')
  for (const spec of larkfieldSpecs) fromSpec(spec, put)
  const forecast = {
    account: 'lk-forecast',
    region: 'lk-alpha',
    product: 'demand-forecast',
    environment: 'live' as const,
    since: FIRST_DAY,
    until: null,
    seasonal: false,
    tags: { team: 'demand-forecast', product: 'demand-forecast', environment: 'live' },
  }
  put({ ...forecast, name: 'sailings-warehouse', type: 'Warehouse', use: { kind: 'warehouse', tbPerDay: 9 } })
  put({ ...forecast, name: 'prices-warehouse', type: 'Warehouse', use: { kind: 'warehouse', tbPerDay: 4 } })
  return list
}

/** Whether a resource is charged on a day. */
export function runsOn(resource: CloudResource, day: Day): boolean {
  return resource.since <= day && (resource.until === null || day < resource.until)
}

/** Servers that a commitment covers, in the order in which it covers them. */
export function coveredServers(inventory: CloudResource[], size: string, region: string, count: number): Set<string> {
  return new Set(
    inventory
      .filter(r => r.use.kind === 'server' && r.use.size === size && r.region === region && r.until === null)
      .slice(0, count)
      .map(r => r.id),
  )
}

/** GB in an object store on a day: it has grown evenly since the demo's first day. */
export function storedGb(use: { gb: number; growthPerMonth?: number }, day: Day, since: Day = FIRST_DAY): number {
  return Math.round(use.gb + ((use.growthPerMonth ?? 0) * (dayNumber(day) - dayNumber(since))) / 30.4)
}

/** Who of a team makes resources; the platform's are made by a pipeline. */
const makers: Record<string, string> = {
  booking: 'Jon Aske',
  'passenger-app': 'Jon Aske',
  loyalty: 'Jon Aske',
  'freight-desk': 'Mikal Brenne',
  customs: 'Mikal Brenne',
  'crew-roster': 'Petra Holm',
  maintenance: 'Petra Holm',
  'data-lake': 'Runa Torvik',
  'demand-forecast': 'Runa Torvik',
  security: 'Oda Lunde',
  platform: 'release pipeline',
}

/** Who made a resource, as the cloud's own records say, whether or not it has a tag; null where they say nothing. */
export function makerOf({ product, createdBy, name }: Pick<CloudResource, 'product' | 'createdBy' | 'name'>): string | null {
  if (createdBy) return null
  // a machine and its disk are one person's
  if (product === 'trial') return trialMakers[Math.floor(drawn('maker', name.replace(/-disk$/, '')) * trialMakers.length)]!
  const team =
    [...brackwaterSpecs, ...larkfieldSpecs].find(spec => spec.product === product)?.team ??
    (product === 'demand-study' ? 'demand-forecast' : null)
  return team === null ? null : (makers[team] ?? null)
}
