import type { AllocationPlan, CentreTree } from '../core/allocation/plan'
import { teamSplit } from './planted'

/** The same money by what the company sells and runs: products by their tag, what is shared by where they earn. */
const products: CentreTree & { id: string; name: string } = {
  ...{ id: 'products', name: 'the products' },
  centres: [
    { id: 'all', name: 'All products', parent: null, owner: 'ines-moldal' },
    { id: 'crossings', name: 'Crossings', parent: 'all', owner: 'jon-aske' },
    { id: 'ticketing', name: 'Ticketing', parent: 'crossings', owner: 'jon-aske' },
    { id: 'on-the-quay', name: 'On the quay', parent: 'crossings', owner: 'jon-aske' },
    { id: 'cargo', name: 'Cargo', parent: 'all', owner: 'mikal-brenne' },
    { id: 'ships', name: 'Ships', parent: 'all', owner: 'petra-holm' },
    { id: 'forecasts', name: 'Forecasts and studies', parent: 'all', owner: 'runa-torvik' },
    { id: 'workplace', name: 'Workplace', parent: 'all', owner: 'arvid-nes' },
  ],
  pools: [{ id: 'foundations', name: 'Foundations', owner: 'siri-vaage', method: 'direct cost' }],
  rules: (
    [
      ['ticketing', ['booking-engine', 'ticket-scanner', 'loyalty']],
      ['on-the-quay', ['passenger-app', 'departure-boards']],
      ['cargo', ['freight-desk', 'customs-link']],
      ['ships', ['crew-roster', 'maintenance-log', 'telemetry-stream', 'vessel-telemetry', 'test-rig']],
      ['forecasts', ['data-lake', 'demand-forecast', 'demand-study', 'pricing-study']],
      ['workplace', ['intranet', 'document-store', 'helpdesk-tools']],
      ['foundations', ['network', 'identity', 'monitoring', 'build-farm']],
    ] as const
  ).map(([target, values]) => ({ id: `to-${target}`, target, conditions: [{ dimension: 'Tags/product', values: [...values] }] })),
}

/**
 * The plan that the company made in November: the timetable team is split off from booking; network, support and security are pools like
 * the platform's, and network and support serve each other; a second tree has the same money by product. Months that are closed stay as
 * they are.
 */
export function laterPlan(plan: AllocationPlan): AllocationPlan {
  const bearers = { booking: '22', 'passenger-app': '14', 'freight-desk': '17', telemetry: '19', 'data-lake': '12', office: '9' }
  const onPools: Record<string, string> = {
    'team-network': 'pool-network',
    'team-support': 'pool-support',
    'team-security': 'pool-security',
  }
  const timetable = { id: 'timetable', name: 'Timetable', parent: 'passenger', owner: 'jon-aske', code: '6413', from: teamSplit.day }
  return {
    ...plan,
    centres: [...plan.centres, timetable],
    serving: 'step-down',
    trees: [products],
    pools: [
      {
        id: 'pool-network',
        name: 'Network',
        owner: 'siri-vaage',
        method: 'shares',
        shares: { 'pool-support': '7', platform: '11', ...bearers },
      },
      { id: 'pool-support', name: 'Support', owner: 'siri-vaage', method: 'shares', shares: { 'pool-network': '10', ...bearers } },
      { id: 'pool-security', name: 'Security', owner: 'oda-lunde', method: 'even', among: { of: 'everyone' } },
      ...plan.pools.map(pool => ({ ...pool, owner: 'siri-vaage' })),
    ],
    rules: [
      {
        id: 'timetable',
        target: 'timetable',
        conditions: [
          { dimension: 'Tags/team', values: ['booking', 'Booking'] },
          { dimension: 'Tags/product', values: [teamSplit.product] },
        ],
        from: teamSplit.day,
      },
      ...plan.rules.map(rule => ({ ...rule, target: onPools[rule.id] ?? rule.target })),
    ],
  }
}
