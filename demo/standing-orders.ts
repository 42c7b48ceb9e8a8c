import type { OrderDefinition } from '../core/standing-order/definition'

const account = (...values: string[]) => ({ dimension: 'SubAccountName', values })
const brake = (resources: number, monthlyCost: string | null = null) => ({ resources, monthlyCost })
const daily = { by: 'schedule', every: { count: 1, unit: 'day' } } as const
const weekly = { by: 'schedule', every: { count: 1, unit: 'week' } } as const

/** The standing orders of Skerry Lines. */
export const standingOrders: OrderDefinition[] = [
  {
    name: 'Owner from whoever made it',
    finds: {
      what: 'resources',
      conditions: [account('sandbox', 'rehearsal', 'build')],
      made: { when: 'since last month' },
      costAtLeast: null,
    },
    waitDays: 0,
    does: { deed: 'tag owner', key: 'owner', form: 'mail' },
    starts: { by: 'event' },
    brake: brake(60),
  },
  {
    name: 'Product is missing',
    finds: {
      what: 'resources',
      conditions: [{ dimension: 'Tags/product', values: [null] }, account('sandbox', 'live-fleet', 'build')],
      made: { when: 'before', days: 3 },
      costAtLeast: '1',
    },
    waitDays: 0,
    does: {
      deed: 'notify',
      by: 'mail',
      otherwise: 'ines-moldal',
      message: 'Please set the tag product where it runs, so that its cost is told under the right product.',
    },
    starts: weekly,
    brake: brake(60),
  },
  {
    name: 'Rehearsal sleeps at night',
    finds: { what: 'savings', detectors: ['can-sleep'], conditions: [account('rehearsal')] },
    waitDays: 7,
    does: { deed: 'act' },
    starts: daily,
    brake: brake(20, '3000'),
  },
  {
    name: 'Old snapshots',
    finds: { what: 'savings', detectors: ['snapshots-growing'], conditions: [] },
    waitDays: 0,
    does: {
      deed: 'notify',
      by: 'chat',
      otherwise: 'siri-vaage',
      message: 'Copies that nobody needs any more can be deleted; a rule for how long they are kept does it from then on.',
    },
    starts: { by: 'schedule', every: { count: 1, unit: 'month' } },
    brake: brake(40),
  },
  {
    name: 'Sandbox older than 14 days',
    finds: { what: 'resources', conditions: [account('sandbox')], made: { when: 'before', days: 14 }, costAtLeast: null },
    waitDays: 0,
    does: {
      deed: 'notify',
      by: 'chat',
      otherwise: 'siri-vaage',
      message: 'Trials in the sandbox run for 14 days. Delete it, or say until when it is needed.',
    },
    starts: daily,
    brake: brake(40),
  },
  {
    name: 'Disks left behind',
    finds: { what: 'savings', detectors: ['disk-left-behind'], conditions: [] },
    waitDays: 14,
    does: { deed: 'act' },
    starts: weekly,
    brake: brake(20, '500'),
  },
]
