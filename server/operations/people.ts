import * as contracts from '../../shared/contracts/people'
import { operation } from './operation'

export const people = {
  list: operation('people', 'get', '/people', 'People, and whom one works as.', { reach: 'common', reply: contracts.peopleList }),
  choose: operation('people', 'post', '/people/chosen', 'Chooses whom one works as.', {
    reach: 'common',
    body: contracts.chosenPerson,
    reply: contracts.chosenPerson,
  }),
  save: operation('people', 'put', '/people/{id}', 'Someone of the company, and what they see.', {
    reach: 'company',
    parts: { id: contracts.personId },
    body: contracts.personSave,
    reply: contracts.personEntry,
  }),
  remove: operation('people', 'delete', '/people/{id}', 'Takes someone away; what they have done keeps their id.', {
    reach: 'company',
    parts: { id: contracts.personId },
    reply: contracts.chosenPerson,
  }),
}
