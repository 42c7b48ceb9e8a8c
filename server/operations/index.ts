import { allocation } from './allocation'
import { connections } from './connections'
import { estimates } from './estimates'
import { jobs } from './jobs'
import { maintenance } from './maintenance'
import { measurements } from './measurements'
import { measures } from './measures'
import { people } from './people'
import { rateCards } from './rate-cards'
import { savings } from './savings'
import { sentences } from './sentences'
import { server } from './server'
import { sources } from './sources'
import { spend } from './spend'
import { standingOrders } from './standing-orders'
import type { Operation } from './operation'

/** Everything the interface does over HTTP: what routes take and give, and what the OpenAPI document says. */
export const operations = {
  spend,
  sentences,
  sources,
  rateCards,
  estimates,
  allocation,
  savings,
  connections,
  jobs,
  measures,
  measurements,
  people,
  standingOrders,
  maintenance,
  server,
}

export const allOperations: readonly Operation[] = Object.values(operations).flatMap(group => Object.values(group))
