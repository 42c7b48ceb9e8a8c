import * as contracts from '../../../shared/contracts/allocation'
import * as reference from '../../../shared/contracts/reference-data'
import * as settings from '../../../shared/contracts/spend-settings'
import { fileBody } from '../read-json'
import { operation } from './operation'

export const allocation = {
  plan: operation('allocation', 'get', '/allocation/plan', 'Cost centres, rules and pools.', { reply: contracts.planState }),
  savePlan: operation('allocation', 'put', '/allocation/plan', 'Saves them as the next version.', {
    body: contracts.planSave,
    reply: contracts.planSaved,
  }),
  preview: operation('allocation', 'post', '/allocation/preview', 'A month under a plan that is not saved.', {
    body: contracts.planPreview,
    reply: contracts.settlement,
  }),
  settlement: operation('allocation', 'get', '/allocation/settlement', 'A billing month put on cost centres.', {
    query: contracts.allocationQuestion,
    reply: contracts.settlement,
  }),
  lookups: operation('allocation', 'get', '/lookups', 'Tables that say something of another dimension’s values.', {
    reply: settings.lookupList,
  }),
  lookup: operation('allocation', 'get', '/lookups/{name}', 'A lookup with all of its entries.', {
    parts: { name: settings.lookupName },
    reply: settings.lookupState,
  }),
  saveLookup: operation('allocation', 'put', '/lookups/{name}', 'A lookup in place of the one of that name; earlier states are kept.', {
    parts: { name: settings.lookupName },
    body: settings.lookup,
    limits: fileBody,
    reply: settings.lookupSaved,
  }),
  dropLookup: operation('allocation', 'delete', '/lookups/{name}', 'Takes a lookup away; earlier states are kept.', {
    parts: { name: settings.lookupName },
    reply: settings.lookupSaved,
  }),
  takeOrganisation: operation('allocation', 'post', '/organisation', 'People, cost centres, rules and pool.', {
    body: reference.organisation,
    limits: fileBody,
    reply: reference.organisationLoaded,
  }),
}
