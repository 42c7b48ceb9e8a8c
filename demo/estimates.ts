import type { Component, Estimate } from '../core/estimate/estimate'
import { newEstimate, newRow } from '../core/estimate/estimate'
import { brackwaterCard, larkfieldCard } from './rate-cards'

/** An estimate of the demo, under the id that it always has, with who made it and its earlier states by name. */
export type DemoEstimate = { id: string; who: string; states: { name: string | null; estimate: Estimate }[] }

/** A row whose given inputs someone has chosen. */
const row = (id: string, part: string, kind: string, inputs: Record<string, string>, more: Partial<Component> = {}): Component =>
  newRow(id, part, kind, inputs, more)
const begin = (name: string, region: string) => newEstimate(name, brackwaterCard, region, '2026-11-24')
const demoId = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`

const pierBoards: Estimate = {
  ...begin('Pier boards, live departures', 'low-coast'),
  target: '420',
  components: [
    row('boards', 'Boards and feed', 'server', { size: 'otter-6x24', count: '2', hoursPerMonth: 'always on', pays: 'on-demand' }),
    row('boards-disk', 'Boards and feed', 'disk', { class: 'steady', count: '2', storageGb: '80' }),
    row('boards-out', 'Boards and feed', 'internet-transfer', { sentGb: '895' }),
    row('media', 'Feed store', 'object-storage', { class: 'ready', storageGb: '250', writes: '60000', reads: '4200000' }),
  ],
}

const seasonBefore: Estimate = {
  ...begin('Booking engine, summer 2027', 'north-fjord'),
  target: '5200',
  note: 'Sized for the July peak at 2.4 times the winter load. Sketch by the booking team of 12 November.',
  discounts: [{ provider: 'Brackwater Cloud', percent: '4' }],
  components: [
    row(
      'web',
      'Front',
      'server',
      { size: 'otter-4x16', count: '4', hoursPerMonth: 'always on', peakCount: '6', peakHours: '7d x 9h', zones: '2', pays: 'on-demand' },
      { note: 'The peak machines follow the timetable: 08:00 to 17:00.' },
    ),
    row('web-disk', 'Front', 'disk', { class: 'steady', count: '4', storageGb: '60' }),
    row('balancer', 'Front', 'load-balancer', { balancedGb: '5200', count: '2' }),
    row('out', 'Front', 'internet-transfer', { sentGb: '2800..4200..7500' }, { note: 'Page size × visits; the new map is heavier.' }),
    row('engine', 'Booking engine', 'server', {
      size: 'heron-8x64',
      count: '3',
      hoursPerMonth: 'always on',
      zones: '3',
      pays: 'on-demand',
    }),
    row('engine-disk', 'Booking engine', 'disk', { class: 'swift', count: '3', storageGb: '200' }),
    row('bookings', 'Booking engine', 'database', {
      size: 'heron-8x64',
      zones: '2',
      replicas: '1',
      storageGb: '900',
      iops: '6000',
      backupGb: '1800',
      pays: 'on-demand',
    }),
    row('seatmap', 'Booking engine', 'functions', { calls: '20000000..36000000..60000000', seconds: '0.18', memoryGb: '0.5' }),
    row('gate', 'Booking engine', 'gateway', { passedGb: '1400', count: '3' }),
    row('tickets', 'Keeping', 'object-storage', { class: 'ready', storageGb: '2600', writes: '1800000', reads: '9500000' }),
    row('logs', 'Keeping', 'logs', { ingestedGb: '260..420..800', daysKept: '30', searchedGb: '1500' }),
    row('copies', 'Keeping', 'snapshot', { protectedGb: '840', changePercent: '4', daysKept: '14' }),
    row('help', 'Running it', 'support', { plan: 'hearing' }),
  ],
}
const season: Estimate = {
  ...seasonBefore,
  cards: [...seasonBefore.cards, { provider: larkfieldCard.provider, date: larkfieldCard.validFrom, revision: 1 }],
  components: seasonBefore.components.map(c => (c.id === 'web' ? { ...c, inputs: { ...c.inputs, peakCount: '5' } } : c)),
  scenarios: [
    { id: 'committed', name: 'one year, paid monthly', whole: { pays: '1 year, paid monthly' }, rows: {}, conditions: [] },
    { id: 'coast', name: 'in low-coast', whole: { where: 'low-coast' }, rows: {}, conditions: [] },
  ],
  dismissed: [{ blindSpot: 'no-identity', reason: 'Passengers sign in at the loyalty account, which has its own estimate.' }],
}

const archive: Estimate = {
  ...begin('Timetable and ticket archive', 'low-coast'),
  target: '150',
  termYears: 2,
  components: [
    row('scans', 'Archive', 'object-archive', {
      class: 'ready',
      arrivesGb: '420',
      startGb: '5200',
      horizon: '24',
      class2: 'cool',
      after2: '2',
      class3: 'deep',
      after3: '9',
      readPercent: '1',
      objectMb: '8',
    }),
    row('index', 'Archive', 'database-tier', { tier: 'stream', storageGb: '40' }),
    row('fetch', 'Archive', 'internet-transfer', { sentGb: '60' }),
  ],
}

const desktops: Estimate = {
  ...begin('Desktops of the harbour offices', 'low-coast'),
  target: '2600',
  components: [
    row('clerks', 'Ticket clerks', 'desktop-fleet', {
      shape: 'shared machines',
      users: '140',
      size: 'otter-8x32',
      work: 'usual',
      hoursPerMonth: '6d x 12h',
      busyPercent: '75',
      quietPercent: '4',
      system: 'Thrumwood Server, own licence',
      diskClass: 'steady',
      held: '90',
      pays: 'on-demand',
    }),
    row('planners', 'Vessel planners', 'desktop-fleet', {
      shape: 'a machine each',
      users: '22',
      size: 'otter-4x16',
      hoursPerMonth: '5d x 9h',
      system: 'Thrumwood Server, own licence',
      diskClass: 'steady',
      profilesOn: 'share, calm',
      held: '22',
      pays: 'on-demand',
    }),
    row('sign-in', 'Sign-in', 'identity', { users: '162', feature: 'second factor', featureUsers: '162' }),
  ],
}

const cameras: Estimate = {
  ...begin('Quay cameras for the harbour authority', 'low-coast'),
  marginPercent: '18',
  taxPercent: '21',
  note: "Own cost after the framework discount; the harbour authority gets the customer's copy.",
  discounts: [{ provider: 'Brackwater Cloud', percent: '6' }],
  components: [
    row('recorders', 'Recording', 'server', { size: 'reed-4x8', count: '3', hoursPerMonth: 'always on', pays: 'on-demand' }),
    row('recorder-disk', 'Recording', 'disk', { class: 'plain', count: '3', storageGb: '500' }),
    row('video', 'Recording', 'object-storage', { class: 'cool', storageGb: '9000', writes: '400000', retrievedGb: '300' }),
    row('encoding', 'Watching', 'media-encoding', { quality: 'full', by: 'per minute', minutes: '42000' }),
    row('stream', 'Watching', 'internet-transfer', { sentGb: '1900' }),
    row('fitting', 'Watching', 'free-form', { what: 'Mounting and maintenance of 24 cameras', amount: '640', interval: 'a month' }),
  ],
}

/** The estimates that people of the demo company have made, with what one finds in them. */
export const demoEstimates: DemoEstimate[] = [
  { id: demoId(1), who: 'Ines Moldal', states: [{ name: null, estimate: pierBoards }] },
  {
    id: demoId(2),
    who: 'Ines Moldal',
    states: [
      { name: 'sketch of the booking team', estimate: seasonBefore },
      { name: null, estimate: season },
    ],
  },
  { id: demoId(3), who: 'Ines Moldal', states: [{ name: null, estimate: archive }] },
  { id: demoId(4), who: 'Ines Moldal', states: [{ name: null, estimate: desktops }] },
  { id: demoId(5), who: 'Ines Moldal', states: [{ name: 'sent to the harbour authority', estimate: cameras }] },
]
