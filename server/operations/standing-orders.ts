import { z } from 'zod'
import * as contracts from '../../shared/contracts/standing-orders'
import { numberOf, operation } from './operation'

const company = { reach: 'company', reply: contracts.standingOrders } as const

export const standingOrders = {
  state: operation('standing orders', 'get', '/standing-orders', 'Standing orders with their newest runs.', company),
  make: operation('standing orders', 'post', '/standing-orders', 'A new standing order; it is off until it was tried.', {
    ...company,
    body: contracts.orderDefinition,
  }),
  edit: operation('standing orders', 'put', '/standing-orders/{id}', 'Changes an order; another one has to be tried anew.', {
    ...company,
    body: contracts.orderDefinition,
  }),
  drop: operation('standing orders', 'delete', '/standing-orders/{id}', 'Takes an order away with its runs and exceptions.', company),
  switch: operation('standing orders', 'put', '/standing-orders/{id}/on', 'Switches an order on or off.', {
    ...company,
    body: contracts.orderSwitch,
  }),
  run: operation('standing orders', 'post', '/standing-orders/{id}/runs', 'Lets an order run once, dry or not, in the background.', {
    ...company,
    body: contracts.orderRunAsked,
  }),
  stop: operation('standing orders', 'post', '/standing-orders/{id}/stop', 'Stops the run that is under way.', company),
  runWhole: operation('standing orders', 'get', '/standing-orders/runs/{run}', 'A run with all that it found, did and failed to do.', {
    parts: { run: numberOf('run') },
    reach: 'company',
    reply: contracts.orderRunWhole,
  }),
  except: operation('standing orders', 'post', '/standing-orders/{id}/exceptions', 'Excepts a resource, until a day or for good.', {
    ...company,
    body: contracts.exceptionAsked,
  }),
  takeException: operation('standing orders', 'delete', '/standing-orders/{id}/exceptions', 'Takes an exception back.', {
    ...company,
    query: z.object({ resource: z.string() }),
  }),
  choose: operation('standing orders', 'post', '/standing-orders/{id}/choices', 'Sets the tag that a person has chosen.', {
    ...company,
    body: contracts.choiceAsked,
  }),
}
