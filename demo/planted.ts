// What is in the demo on purpose; demo/README.md tells where to see each, and a test finds each in the files.

/** A sponsor pays for nearly all that the telemetry account uses: its total reads close to zero. */
export const sponsorCredit = { account: 'lk-telemetry', share: 0.97, description: "Clean Fairways programme, sponsor's credit" }
/** A rehearsal of the booking team searched the logs for hours. A Tuesday. */
export const expensiveTuesday = {
  day: '2026-11-17',
  account: 'rehearsal',
  resource: 'rehearsal-booking-engine-logs',
  gb: 84_600,
  from: 13,
  to: 19,
}
/** Left behind when a ship's test rig was taken out, and two more that nobody uses. */
export const idleGateways = [
  { name: 'gw-test-rig-alder', account: 'live-fleet', region: 'low-coast', rigRemoved: '2026-04-14' },
  { name: 'gw-sandbox-trial', account: 'sandbox', region: 'north-fjord', rigRemoved: '2026-06-02' },
  { name: 'gw-old-build-net', account: 'build', region: 'low-coast', rigRemoved: '2026-08-20' },
]
/** Eighty-four machines for six days, without tags: August is the month with 12 % unallocated. */
export const demandStudy = {
  start: '2026-08-11',
  end: '2026-08-17',
  machines: 84,
  size: 'heron-16x128',
  account: 'sandbox',
  region: 'north-fjord',
}
/** Tags are on charges from this day on. */
export const taggingCampaign = '2026-06-08'
/** One team, four spellings. */
export const bookingSpellings = ['booking', 'Booking', 'bookings', 'booking-team']
/** September's log ingestion was billed at the wrong rate; October's bill carries the corrections. */
export const restatedMonth = { corrected: '2026-09', billedIn: '2026-10', share: 0.25 }
/** A year for database servers, paid when it began. */
export const upfrontPurchase = { day: '2026-02-02', size: 'heron-8x64', region: 'low-coast', count: 6, id: 'bw-commit-77120' }
/** A year for steady servers, paid monthly; two of the twenty are not used since September. */
export const recurringCommitment = {
  start: '2026-01-03',
  size: 'otter-4x16',
  region: 'low-coast',
  count: 20,
  usedSince: '2026-09-01',
  used: 18,
  id: 'bw-commit-60233',
}
/** Seats paid twice, given back. */
export const refund = { day: '2026-03-18', provider: 'Mossdesk', amount: '-588.00' }
/** Disks of the test rig, which nobody took out with it. */
export const disksLeftBehind = { machine: 'test-rig-alder', account: 'live-fleet', count: 4, gb: 900, variant: 'steady' }
/** A database of a study that stands still since a day, with its storage. */
export const stoppedDatabase = { name: 'pricing-study-db', account: 'data-lake', stopped: '2026-10-20', gb: 1600, size: 'otter-4x16' }
/** Copies that only ever grow: nobody deletes the old. */
export const growingSnapshots = { name: 'hull-pictures-copies', account: 'live-fleet', since: '2026-08-01', gb: 1200, growthPerMonth: 900 }
/** Disks of the rehearsal in two zones, as live ones would be. */
export const rehearsalZones = { account: 'rehearsal', count: 6, gb: 700, variant: 'steady, across zones' }
/** Larger than their use: names begin so; of processor and memory they use this much at most, in percent. */
export const tooLarge = [
  { namesBegin: 'monitoring-', cpu: 21, memory: 27 },
  { namesBegin: 'roster-db', cpu: 13, memory: 26 },
]
/** Disks of a class that gives far more than they are asked for: names begin so; operations and MB a second at most. */
export const tooSwift = { namesBegin: 'data-lake-ingest-', operations: 40, throughput: 12 }
/** What was put before the customs' second link, which was never built. */
export const idleLoadBalancer = 'rehearsal-customs-link-lb-1'
/** When people work with the rehearsal: on weekdays; else nothing happens there. */
export const rehearsalHours = { from: 7, to: 19 }
/** A managed service whose copies are charged under another service: looked at whole, it costs several times what its own line says. */
export const recovery = {
  name: 'recovery-booking',
  account: 'live-passenger',
  region: 'low-coast',
  product: 'booking-engine',
  since: '2026-05-01',
  protectedServers: 12,
  gb: 220,
}
/**
 * The roster's solvers are to stand still at night; their cloud refuses it every evening, for a lock that a trial left behind. The bill
 * shows 24 hours a day.
 */
export const nightPlan = {
  namesBegin: 'crew-roster-solver-',
  stop: 20,
  start: 6,
  lock: { against: 'changes' as const, why: 'trial of the autumn roster', by: 'crew-roster', since: '2026-10-19' },
}
/** May not be deleted, whoever asks. */
export const keptForLong = {
  names: ['booking-db', 'freight-db'],
  lock: { against: 'deletion' as const, why: 'bookings are kept for seven years', by: 'security', since: '2025-11-03' },
}

/** Comes after October was closed: the vendor takes back seats of people who had left. */
export const lateCorrection = {
  provider: 'Fernsuite',
  month: '2026-10',
  file: 'fernsuite-2026-10-corrected.csv.gz',
  amount: '-312',
  description: 'Seats of people who had left by 1 October',
}
/** A team of booking that stands on its own feet from a day on, with the product that it took with it. */
export const teamSplit = { day: '2026-11-01', product: 'ticket-scanner' }
/**
 * Who made the trials, as their cloud writes it: people in several ways, one by an initial only, a machine, and somebody whom the register
 * does not know.
 */
export const trialMakers = [
  'jon.aske@skerry-lines.example',
  'SKERRY\\petra.holm',
  'console/Runa Torvik',
  'Brenne, Mikal',
  'm.brenne',
  'svc-rollout',
  'l.berg@harbour-it.example',
  'Oda Lunde (on call)',
]
