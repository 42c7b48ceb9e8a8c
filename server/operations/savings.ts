import * as contracts from '../../shared/contracts/savings'
import { id } from './replies'
import { operation } from './operation'

export const savings = {
  state: operation('savings', 'get', '/savings', 'Opportunities and the ledger.', { reach: 'bounded', reply: contracts.savingsState }),
  look: operation('savings', 'post', '/savings/look', 'Looks again through the connector.', {
    reach: 'company',
    reply: contracts.savingsState,
  }),
  preview: operation('savings', 'post', '/savings/preview', 'What approving would do.', {
    reach: 'bounded',
    body: id,
    reply: contracts.actionPreview,
  }),
  approve: operation('savings', 'post', '/savings/approve', 'Approves and carries out one opportunity, once.', {
    reach: 'bounded',
    body: id,
    reply: contracts.savingsState,
  }),
}
