import * as contracts from '../../../shared/contracts/connections'
import * as reference from '../../../shared/contracts/reference-data'
import * as savings from '../../../shared/contracts/savings'
import { id } from './replies'
import { operation } from './operation'

export const connections = {
  list: operation('connections', 'get', '/connections', 'What is connected and whether it answers.', { reply: contracts.connectionState }),
  kinds: operation('connections', 'get', '/connections/kinds', 'Kinds of outside services, and what each can do.', {
    reply: contracts.connectorKindList,
  }),
  make: operation('connections', 'post', '/connections', 'Makes a connection.', { body: contracts.connectionInput, reply: id }),
  test: operation('connections', 'post', '/connections/test', 'Asks a service whose it is; keeps nothing.', {
    body: contracts.connectionTest,
    reply: contracts.connectionTested,
  }),
  change: operation('connections', 'put', '/connections/{name}', 'Changes how a connection is reached.', {
    body: contracts.connectionInput.omit({ name: true }),
    reply: id,
  }),
  remove: operation('connections', 'delete', '/connections/{name}', 'Takes a connection out; what it has delivered stays.', { reply: id }),
  schedules: operation('connections', 'get', '/connections/schedules', 'How often connections are asked for rate cards.', {
    reply: reference.cardSchedules,
  }),
  fetchBill: operation('connections', 'post', '/connections/{name}/fetch', 'Loads the billing period to date.', {
    reply: savings.dayPassed,
  }),
  passDay: operation(
    'connections',
    'post',
    '/connections/{name}/next-day',
    'Lets a day pass at a simulated cloud and loads what it delivers.',
    { reply: savings.dayPassed },
  ),
  fetchRateCard: operation('connections', 'post', '/connections/{name}/rate-card', 'Asks for the rate card it publishes.', {
    reply: reference.cardFetched,
  }),
  schedule: operation('connections', 'put', '/connections/{name}/schedule', 'How often a connection is asked for its rate card.', {
    body: reference.scheduleAsked,
    reply: id,
  }),
}
