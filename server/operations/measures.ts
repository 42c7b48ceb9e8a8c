import * as contracts from '../../shared/contracts/measures'
import { fileBody } from './body-limits'
import { operation } from './operation'

const parts = { name: contracts.measureName }

export const measures = {
  list: operation('allocation', 'get', '/measures', 'Business measures, such as bookings, of which something is told.', {
    reach: 'bounded',
    reply: contracts.measureList,
  }),
  measure: operation('allocation', 'get', '/measures/{name}', 'A business measure with what was counted.', {
    reach: 'bounded',
    parts,
    reply: contracts.measureState,
  }),
  save: operation('allocation', 'put', '/measures', 'What was counted, in place of what was told for the same days: all or nothing.', {
    reach: 'company',
    body: contracts.measuresSave,
    limits: fileBody,
    reply: contracts.measuresSaved,
  }),
  drop: operation('allocation', 'delete', '/measures/{name}', 'Takes a business measure away with all that was told of it.', {
    reach: 'company',
    parts,
    reply: contracts.measureDropped,
  }),
  unitCosts: operation('allocation', 'get', '/unit-costs', 'What one of a business measure costs, month by month.', {
    reach: 'bounded',
    query: contracts.unitCostsAsked,
    reply: contracts.unitCosts,
  }),
}
