import { month } from '../../shared/contracts/common'
import * as contracts from '../../shared/contracts/allocation'
import { movedLines } from '../../shared/contracts/imports'
import * as reference from '../../shared/contracts/reference-data'
import * as mails from '../../shared/contracts/statement-mails'
import * as settings from '../../shared/contracts/spend-settings'
import { fileBody } from './body-limits'
import { operation } from './operation'

export const allocation = {
  plan: operation('allocation', 'get', '/allocation/plan', 'Cost centres, rules and pools: the newest version, or another.', {
    reach: 'company',
    query: contracts.planAsked,
    reply: contracts.planState,
  }),
  versions: operation('allocation', 'get', '/allocation/versions', 'The versions of the plan, the newest first.', {
    reach: 'company',
    reply: contracts.planVersions,
  }),
  centres: operation('allocation', 'get', '/allocation/centres', 'The cost centres that are for who asks.', {
    reach: 'bounded',
    reply: contracts.centreList,
  }),
  savePlan: operation('allocation', 'put', '/allocation/plan', 'Saves them as the next version.', {
    reach: 'company',
    body: contracts.planSave,
    reply: contracts.planSaved,
  }),
  preview: operation('allocation', 'post', '/allocation/preview', 'A month under a plan, or with lookups, that are not saved.', {
    reach: 'company',
    body: contracts.planPreview,
    limits: fileBody,
    reply: contracts.settlement,
  }),
  moved: operation('allocation', 'post', '/allocation/moved', 'The charges of a month that rules, or lookups, not saved put elsewhere.', {
    reach: 'company',
    body: contracts.planPreview.omit({ measures: true, uplifts: true }),
    limits: fileBody,
    reply: contracts.movedCharges,
  }),
  settlement: operation('allocation', 'get', '/allocation/settlement', 'A billing month put on cost centres.', {
    reach: 'bounded',
    query: contracts.allocationQuestion,
    reply: contracts.settlement,
  }),
  statements: operation('allocation', 'get', '/allocation/statements/{format}', 'The statements of a month as a file.', {
    reach: 'bounded',
    parts: { format: contracts.statementFormat },
    query: contracts.statementsAsked,
    reply: 'file',
  }),
  lines: operation('allocation', 'get', '/allocation/charges', 'Charge lines of a month as FOCUS, with whose each is, and shares.', {
    reach: 'company',
    query: contracts.statementsAsked.omit({ centre: true }),
    reply: 'file',
  }),
  beside: operation('allocation', 'get', '/allocation/beside', 'What stands beside statements: the month before, and unit costs.', {
    reach: 'bounded',
    query: contracts.allocationQuestion.omit({ as: true, uplifts: true }),
    reply: contracts.statementsBeside,
  }),
  closings: operation('allocation', 'get', '/allocation/closings', 'Months that are closed, and where adjustments arrive.', {
    reach: 'common',
    reply: contracts.closings,
  }),
  outlook: operation('allocation', 'get', '/allocation/closings/{month}', 'Whether a month can be closed, and what is to be known.', {
    reach: 'company',
    parts: { month },
    reply: contracts.closingOutlook,
  }),
  changes: operation('allocation', 'get', '/allocation/closings/{month}/changes', 'Charge lines that changed since a month was closed.', {
    reach: 'company',
    parts: { month },
    reply: movedLines,
  }),
  close: operation('allocation', 'post', '/allocation/closings', 'Closes a month as it was looked at; it never changes again.', {
    reach: 'company',
    body: contracts.closeMonth,
    reply: contracts.closedState,
  }),
  mails: operation('allocation', 'get', '/allocation/closings/{month}/mails', 'Whom statements of a closed month are for, and went to.', {
    reach: 'company',
    parts: { month },
    reply: mails.statementMails,
  }),
  sendMails: operation('allocation', 'post', '/allocation/closings/{month}/mails', 'Mails statements to owners, to each once.', {
    reach: 'company',
    parts: { month },
    body: mails.statementMailsAsked,
    reply: mails.statementMails,
  }),
  lookups: operation('allocation', 'get', '/lookups', 'Tables that say something of another dimension’s values.', {
    reach: 'company',
    reply: settings.lookupList,
  }),
  lookup: operation('allocation', 'get', '/lookups/{name}', 'A lookup with all of its entries.', {
    reach: 'company',
    parts: { name: settings.lookupName },
    reply: settings.lookupState,
  }),
  saveLookup: operation('allocation', 'put', '/lookups/{name}', 'A lookup in place of the one of that name; earlier states are kept.', {
    reach: 'company',
    parts: { name: settings.lookupName },
    body: settings.lookupSave,
    limits: fileBody,
    reply: settings.lookupSaved,
  }),
  unmatched: operation('allocation', 'get', '/lookups/{name}/unmatched', 'Where charges of a billing month and a lookup do not meet.', {
    reach: 'company',
    parts: { name: settings.lookupName },
    query: settings.unmatchedAsked,
    reply: settings.unmatched,
  }),
  dropLookup: operation('allocation', 'delete', '/lookups/{name}', 'Takes a lookup away; earlier states are kept.', {
    reach: 'company',
    parts: { name: settings.lookupName },
    reply: settings.lookupSaved,
  }),
  organisation: operation('allocation', 'get', '/organisation', 'People, cost centres, rules and pools, to be sent back or kept.', {
    reach: 'company',
    reply: reference.organisationState,
  }),
  takeOrganisation: operation('allocation', 'post', '/organisation', 'People, cost centres, rules and pool.', {
    reach: 'company',
    body: reference.organisation,
    limits: fileBody,
    reply: reference.organisationLoaded,
  }),
}
