import type { AllocationPlan } from '../core/allocation/plan'

/** People of Skerry Lines who appear in the demo. */
export const people = [
  { id: 'ines-moldal', name: 'Ines Moldal', role: 'FinOps analyst', bound: null, seesPools: true },
  { id: 'jon-aske', name: 'Jon Aske', role: 'Head of booking systems', bound: ['passenger'], seesPools: false },
  { id: 'petra-holm', name: 'Petra Holm', role: 'Fleet systems lead', bound: ['fleet'], seesPools: false },
  { id: 'runa-torvik', name: 'Runa Torvik', role: 'Data and forecasting', bound: ['insight'], seesPools: false },
  { id: 'mikal-brenne', name: 'Mikal Brenne', role: 'Freight systems lead', bound: ['freight'], seesPools: false },
  { id: 'siri-vaage', name: 'Siri Vaage', role: 'Platform team lead', bound: ['shared'], seesPools: true },
  { id: 'oda-lunde', name: 'Oda Lunde', role: 'Security officer', bound: ['security'], seesPools: false },
  { id: 'arvid-nes', name: 'Arvid Nes', role: 'Finance', bound: null, seesPools: true },
]

const centre = (id: string, name: string, parent: string | null, owner: string | null) => ({ id, name, parent, owner })
const team = (...values: string[]) => [{ dimension: 'Tags/team', values }]
const account = (...values: string[]) => [{ dimension: 'SubAccountName', values }]

/** The cost centres, the rules that put charges on them and the pool that is shared out, as the company has them. */
export const allocationPlan: AllocationPlan = {
  centres: [
    centre('skerry', 'Skerry Lines', null, 'arvid-nes'),
    centre('passenger', 'Passenger', 'skerry', 'jon-aske'),
    centre('booking', 'Booking', 'passenger', 'jon-aske'),
    centre('passenger-app', 'Passenger app', 'passenger', 'jon-aske'),
    centre('loyalty', 'Loyalty', 'passenger', 'jon-aske'),
    centre('freight', 'Freight', 'skerry', 'mikal-brenne'),
    centre('freight-desk', 'Freight desk', 'freight', 'mikal-brenne'),
    centre('customs', 'Customs', 'freight', 'mikal-brenne'),
    centre('fleet', 'Fleet', 'skerry', 'petra-holm'),
    centre('telemetry', 'Vessel telemetry', 'fleet', 'petra-holm'),
    centre('crew-roster', 'Crew roster', 'fleet', 'petra-holm'),
    centre('maintenance', 'Maintenance', 'fleet', 'petra-holm'),
    centre('insight', 'Insight', 'skerry', 'runa-torvik'),
    centre('data-lake', 'Data lake', 'insight', 'runa-torvik'),
    centre('demand-forecast', 'Demand forecast', 'insight', 'runa-torvik'),
    centre('shared', 'Shared', 'skerry', 'siri-vaage'),
    centre('network', 'Network', 'shared', 'siri-vaage'),
    centre('security', 'Security', 'shared', 'oda-lunde'),
    centre('support', 'Support', 'shared', 'siri-vaage'),
    centre('office', 'Office', 'skerry', 'arvid-nes'),
  ],
  pools: [{ id: 'platform', name: 'Platform', method: 'direct cost' }],
  rules: [
    { id: 'team-booking', conditions: team('booking', 'Booking'), target: 'booking' },
    { id: 'team-app', conditions: team('passenger-app'), target: 'passenger-app' },
    { id: 'team-loyalty', conditions: team('loyalty'), target: 'loyalty' },
    { id: 'team-freight', conditions: team('freight-desk'), target: 'freight-desk' },
    { id: 'team-customs', conditions: team('customs'), target: 'customs' },
    { id: 'team-telemetry', conditions: team('vessel-telemetry'), target: 'telemetry' },
    { id: 'team-crew', conditions: team('crew-roster'), target: 'crew-roster' },
    { id: 'team-maintenance', conditions: team('maintenance'), target: 'maintenance' },
    { id: 'team-lake', conditions: team('data-lake'), target: 'data-lake' },
    { id: 'team-forecast', conditions: team('demand-forecast'), target: 'demand-forecast' },
    { id: 'team-network', conditions: team('network'), target: 'network' },
    { id: 'team-security', conditions: team('security'), target: 'security' },
    { id: 'team-support', conditions: team('support'), target: 'support' },
    { id: 'team-office', conditions: team('office'), target: 'office' },
    { id: 'team-platform', conditions: team('platform'), target: 'platform' },
    { id: 'account-freight', conditions: account('live-freight'), target: 'freight-desk' },
    { id: 'account-passenger', conditions: [...account('live-passenger'), { dimension: 'Tags/team', values: [null] }], target: 'booking' },
    { id: 'account-fleet', conditions: account('live-fleet', 'lk-telemetry'), target: 'telemetry' },
    { id: 'account-lake', conditions: account('data-lake'), target: 'data-lake' },
    { id: 'account-forecast', conditions: account('lk-forecast'), target: 'demand-forecast' },
    { id: 'account-platform', conditions: account('shared-platform', 'build', 'pier-house'), target: 'platform' },
    { id: 'account-office', conditions: account('office', 'fernsuite seats'), target: 'office' },
    { id: 'account-charts', conditions: account('lanternchart seats'), target: 'maintenance' },
  ],
}
