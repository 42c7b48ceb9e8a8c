import type { Component } from '../core/estimate/estimate'
import type { Pattern } from '../core/estimate/pattern'
import type { UpliftSet } from '../core/uplift/uplift-set'

type Row = Pattern['components'][number]
const row = (id: string, part: string, kind: Component['kind'], inputs: Record<string, string>): Row => ({
  id,
  part,
  kind,
  name: '',
  inputs,
  note: '',
  muted: false,
})
const open = (label: string, help: string, usual: string, ...into: [component: string, field: string][]): Pattern['open'][number] => ({
  label,
  help,
  usual,
  into: into.map(([component, field]) => ({ component, field })),
})

/** The sets of components that the demo's people use again and again. */
export const demoPatterns: Pattern[] = [
  {
    id: 'web-application',
    name: 'Web application, two zones',
    description: 'Servers behind a balancer with disks, logs and traffic: what a public page needs at least.',
    components: [
      row('web', 'Web', 'server', { size: 'otter-4x16', count: '2', zones: '2' }),
      row('disk', 'Web', 'disk', { class: 'steady', count: '2', storageGb: '60' }),
      row('balancer', 'Web', 'load-balancer', { balancedGb: '500' }),
      row('out', 'Web', 'internet-transfer', { sentGb: '500' }),
      row('logs', 'Web', 'logs', { ingestedGb: '60' }),
      row('copies', 'Web', 'snapshot', { protectedGb: '120' }),
    ],
    open: [
      open('servers', 'One for each zone is the least.', '2', ['web', 'count'], ['disk', 'count']),
      open('size', 'Of every server.', 'otter-4x16', ['web', 'size']),
      open('traffic out, GB a month', 'Page size × visits.', '500', ['out', 'sentGb'], ['balancer', 'balancedGb']),
    ],
  },
  {
    id: 'booking-database',
    name: 'Database that must stay up',
    description: 'Two zones, a replica for reports, and backups beyond the storage.',
    components: [
      row('db', 'Database', 'database', { size: 'otter-8x32', zones: '2', replicas: '1', storageGb: '300', backupGb: '600' }),
      row('zones', 'Database', 'internal-transfer', { over: 'to another zone', sentGb: '200' }),
    ],
    open: [open('storage, GB', 'Of one copy.', '300', ['db', 'storageGb']), open('node size', '', 'otter-8x32', ['db', 'size'])],
  },
  {
    id: 'telemetry-intake',
    name: 'Telemetry intake',
    description: 'Messages of ships taken in by functions, kept as objects, searched in logs.',
    components: [
      row('calls', 'Intake', 'functions', { calls: '40000000', seconds: '0.12', memoryGb: '0.25' }),
      row('kept', 'Intake', 'object-storage', { class: 'self-moving', storageGb: '900', writes: '2000000' }),
      row('logs', 'Intake', 'logs', { ingestedGb: '80' }),
    ],
    open: [open('messages a month', 'Ships × sensors × messages.', '40000000', ['calls', 'calls'])],
  },
  {
    id: 'harbour-office',
    name: 'Harbour office',
    description: 'Shared desktops for clerks with sign-in in two steps.',
    components: [
      row('fleet', 'Office', 'desktop-fleet', {
        shape: 'shared machines',
        users: '40',
        size: 'otter-8x32',
        work: 'usual',
        diskClass: 'steady',
      }),
      row('sign-in', 'Office', 'identity', { users: '40', feature: 'second factor', featureUsers: '40' }),
    ],
    open: [
      open('users', 'Everyone who may sign in.', '40', ['fleet', 'users'], ['sign-in', 'users'], ['sign-in', 'featureUsers']),
      open('hours', 'Such as 6d x 12h.', '6d x 12h', ['fleet', 'hoursPerMonth']),
    ],
  },
  {
    id: 'long-keeping',
    name: 'Long keeping',
    description: 'What the law wants kept: it cools with age and is deleted after seven years.',
    components: [
      row('archive', 'Archive', 'object-archive', {
        class: 'ready',
        arrivesGb: '200',
        horizon: '24',
        class2: 'cool',
        after2: '3',
        class3: 'deep',
        after3: '12',
        deletedAfter: '84',
        objectMb: '8',
      }),
    ],
    open: [open('arrives a month, GB', '', '200', ['archive', 'arrivesGb'])],
  },
]

/** What the platform team charges on top of list prices. */
export const demoUplifts: UpliftSet[] = [
  {
    id: 'platform-care',
    name: 'Platform care',
    currency: 'EUR',
    interval: 'month',
    validFrom: '2026-01-01',
    charges: [{ by: 'flat', label: 'patching and on-call', amount: '12.50' }],
    attached: [{ to: 'kind', key: 'database', variant: null }],
  },
  {
    id: 'office-desk',
    name: 'Office desk',
    currency: 'EUR',
    interval: 'month',
    validFrom: '2026-01-01',
    charges: [{ by: 'unit', label: 'service desk', amount: '3.20', unit: 'users' }],
    attached: [{ to: 'kind', key: 'desktop-fleet', variant: null }],
  },
  {
    id: 'large-memory',
    name: 'Large memory approval',
    currency: 'EUR',
    interval: 'month',
    validFrom: '2026-07-01',
    charges: [{ by: 'percent', label: 'capacity reserve', amount: '2' }],
    attached: [{ to: 'kind', key: 'server', variant: 'heron-16x128' }],
  },
  {
    id: 'licensed-system',
    name: 'Licensed system care',
    currency: 'EUR',
    interval: 'hour',
    validFrom: '2026-03-01',
    charges: [{ by: 'flat', label: 'updates of the licensed system', amount: '0.004' }],
    attached: [{ to: 'system', key: 'Thrumwood Server', variant: null }],
  },
]
