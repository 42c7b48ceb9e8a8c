import { z } from 'zod'
import * as contracts from '../../shared/contracts/savings'
import * as lists from '../../shared/contracts/savings-lists'
import * as own from '../../shared/contracts/savings-own'
import { id } from './replies'
import { operation } from './operation'

const listPart = { id: z.uuid('a list has an id like 00000000-0000-4000-8000-000000000000') }

export const savings = {
  state: operation('savings', 'get', '/savings', 'Opportunities and the ledger.', { reach: 'bounded', reply: contracts.savingsState }),
  look: operation('savings', 'post', '/savings/look', 'Looks again through the connector.', {
    reach: 'company',
    reply: contracts.savingsState,
  }),
  decide: operation('savings', 'post', '/savings/decisions', 'What somebody decides about some opportunities, all or none.', {
    reach: 'bounded',
    body: contracts.savingsDecision,
    reply: contracts.savingsState,
  }),
  setThresholds: operation('savings', 'put', '/savings/thresholds', 'Sets the thresholds of detectors, in place of all that were set.', {
    reach: 'company',
    body: contracts.thresholdsSet,
    reply: contracts.savingsState,
  }),
  previewThresholds: operation('savings', 'post', '/savings/thresholds/preview', 'What would be found with other thresholds.', {
    reach: 'company',
    body: contracts.thresholdsSet,
    reply: contracts.thresholdsPreview,
  }),
  otherwise: operation('savings', 'post', '/savings/otherwise', 'What things that are charged for would cost otherwise.', {
    reach: 'bounded',
    body: own.otherwiseAsked,
    reply: own.otherwiseView,
  }),
  chooseOtherwise: operation('savings', 'post', '/savings/otherwise/choices', 'Chooses a way for some resources, or takes it back.', {
    reach: 'bounded',
    body: own.otherwiseChoice,
    reply: own.otherwiseView,
  }),
  rules: operation('savings', 'get', '/savings/rules', 'Rules of one’s own that find savings.', { reach: 'company', reply: own.ownRules }),
  previewRule: operation('savings', 'post', '/savings/rules/preview', 'What a rule would find; keeps nothing.', {
    reach: 'company',
    body: own.ownRuleInput,
    reply: own.ownRulePreview,
  }),
  addRule: operation('savings', 'post', '/savings/rules', 'Keeps a rule that finds savings.', {
    reach: 'company',
    body: own.ownRuleInput,
    reply: own.ownRules,
  }),
  removeRule: operation('savings', 'delete', '/savings/rules/{id}', 'Deletes a rule: what it found is found no more.', {
    parts: { id: z.uuid('a rule has an id like 00000000-0000-4000-8000-000000000000') },
    reach: 'company',
    reply: own.ownRules,
  }),
  bill: operation('savings', 'get', '/savings/bill', 'This month’s bill against the month before, with what was saved of it.', {
    reach: 'bounded',
    reply: contracts.billAndSavings.nullable(),
  }),
  lists: operation('savings', 'get', '/savings/lists', 'Lists that were handed to owners, with what they answered.', {
    reach: 'bounded',
    reply: lists.savingsLists,
  }),
  makeLists: operation('savings', 'post', '/savings/lists', 'A list of some opportunities for each owner, mailed where that is wanted.', {
    reach: 'bounded',
    body: lists.listsToMake,
    reply: lists.savingsLists,
  }),
  linkToList: operation('savings', 'post', '/savings/lists/{id}/link', 'A link that opens a list; it is told this once.', {
    parts: listPart,
    reach: 'bounded',
    reply: lists.listLink,
  }),
  revokeList: operation('savings', 'delete', '/savings/lists/{id}', 'Takes a list back: nothing opens it any more.', {
    parts: listPart,
    reach: 'bounded',
    reply: lists.savingsLists,
  }),
  file: operation('savings', 'post', '/savings/file', 'Some opportunities as a file.', {
    reach: 'bounded',
    body: lists.savingsFileAsked,
    reply: 'file',
  }),
  openList: operation('savings', 'get', '/shared-savings/{secret}', 'What a link to a list shows.', {
    reach: 'common',
    reply: lists.sharedSavings,
  }),
  answerList: operation('savings', 'post', '/shared-savings/{secret}/answers', "An owner's answer to one opportunity of their list.", {
    reach: 'common',
    body: lists.answerToList,
    reply: lists.sharedSavings,
  }),
  preview: operation('savings', 'post', '/savings/preview', 'What approving would do.', {
    reach: 'bounded',
    body: id,
    reply: contracts.actionPreview,
  }),
  setApprovalLimit: operation('savings', 'put', '/savings/acts/limit', 'Above which monthly saving a second person has to approve.', {
    reach: 'company',
    body: contracts.approvalLimit,
    reply: contracts.savingsState,
  }),
  previewActs: operation('savings', 'post', '/savings/acts/preview', 'What acting on several would do, and what nothing here can do.', {
    reach: 'company',
    body: contracts.actsAsked,
    reply: contracts.actsPreview,
  }),
  act: operation('savings', 'post', '/savings/acts', 'Approves several, all or none, and carries them out one after the other.', {
    reach: 'company',
    body: contracts.actsAsked,
    reply: contracts.savingsState,
  }),
  stopActs: operation(
    'savings',
    'post',
    '/savings/acts/stop',
    'Stops what is carried out one after the other; what was not begun is not.',
    { reach: 'company', reply: contracts.savingsState },
  ),
  undo: operation('savings', 'post', '/savings/undo', 'Undoes what was done about one opportunity, once.', {
    reach: 'company',
    body: id,
    reply: contracts.savingsState,
  }),
  approve: operation('savings', 'post', '/savings/approve', 'Approves and carries out one opportunity, once.', {
    reach: 'bounded',
    body: id,
    reply: contracts.savingsState,
  }),
}
