import * as contracts from '../../shared/contracts/people'
import { operation } from './operation'

export const people = {
  list: operation('people', 'get', '/people', 'People, and whom one works as.', { reach: 'common', reply: contracts.peopleList }),
  choose: operation('people', 'post', '/people/chosen', 'Chooses whom one works as.', {
    reach: 'common',
    body: contracts.chosenPerson,
    reply: contracts.chosenPerson,
  }),
}
