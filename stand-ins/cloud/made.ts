import { addDays } from '../../core/time/day'
import type { CloudResource } from '../../demo/inventory'
import type { CloudState, Made } from './state'

export const madeId = ({ name }: Made) => `bw:north-fjord:server:made-${name}`

/** So many days a machine that somebody has made runs. */
const DAYS = 40

/** What somebody has made since, as machines of the sandbox. */
export const madeResources = ({ made }: CloudState): CloudResource[] =>
  made.map(one => ({
    ...{
      id: madeId(one),
      name: one.name,
      type: 'Server',
      account: 'sandbox',
      region: 'north-fjord',
      product: 'made',
      environment: 'build',
    },
    ...{
      since: one.at.slice(0, 10),
      until: addDays(one.at.slice(0, 10), DAYS),
      tags: {},
      use: { kind: 'server', size: one.size },
      seasonal: false,
    },
  }))

/** The event that tells of the making of a resource, with the record as the cloud keeps it. */
export const created = (resourceId: string, at: string, by: string) => ({
  ...{ id: `${resourceId}/created`, at, resourceId, what: 'created', by },
  raw: JSON.stringify({ record: 'audit', time: at, action: 'create', target: resourceId, actor: by, from: 'control service' }),
})
