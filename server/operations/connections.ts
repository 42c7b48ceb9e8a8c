import * as contracts from '../../shared/contracts/connections'
import * as reference from '../../shared/contracts/reference-data'
import * as savings from '../../shared/contracts/savings'
import { id } from './replies'
import { operation } from './operation'

/** Lets so much time pass at a simulated cloud. */
const passing = <T extends string>(time: T) =>
  operation(
    'connections',
    'post',
    `/connections/{name}/next-${time}`,
    `Lets a ${time} pass at a simulated cloud and loads what it delivers.`,
    { reach: 'company', reply: savings.dayPassed },
  )

export const connections = {
  list: operation('connections', 'get', '/connections', 'What is connected and whether it answers.', {
    reach: 'company',
    reply: contracts.connectionState,
  }),
  kinds: operation('connections', 'get', '/connections/kinds', 'Kinds of outside services, and what each can do.', {
    reach: 'company',
    reply: contracts.connectorKindList,
  }),
  make: operation('connections', 'post', '/connections', 'Makes a connection.', {
    reach: 'company',
    body: contracts.connectionInput,
    reply: id,
  }),
  test: operation('connections', 'post', '/connections/test', 'Asks a service whose it is; keeps nothing.', {
    reach: 'company',
    body: contracts.connectionTest,
    reply: contracts.connectionTested,
  }),
  change: operation('connections', 'put', '/connections/{name}', 'Changes how a connection is reached.', {
    reach: 'company',
    body: contracts.connectionInput.omit({ name: true }),
    reply: id,
  }),
  remove: operation('connections', 'delete', '/connections/{name}', 'Takes a connection out; what it has delivered stays.', {
    reach: 'company',
    reply: id,
  }),
  schedules: operation('connections', 'get', '/connections/schedules', 'How often connections are asked for rate cards.', {
    reach: 'company',
    reply: reference.cardSchedules,
  }),
  fetchBill: operation('connections', 'post', '/connections/{name}/fetch', 'Loads the bill to date.', {
    reach: 'company',
    reply: savings.dayPassed,
  }),
  passDay: passing('day'),
  passWeek: passing('week'),
  passMonth: passing('month'),
  fetchRateCard: operation('connections', 'post', '/connections/{name}/rate-card', 'Asks for the rate card it publishes.', {
    reach: 'company',
    reply: reference.cardFetched,
  }),
  schedule: operation('connections', 'put', '/connections/{name}/schedule', 'How often a connection is asked for its rate card.', {
    reach: 'company',
    body: reference.scheduleAsked,
    reply: id,
  }),
}
