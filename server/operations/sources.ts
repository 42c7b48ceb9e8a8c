import { z } from 'zod'
import { mappingSchema } from '../../core/focus/mapping/mapping'
import * as imports from '../../shared/contracts/imports'
import * as mappings from '../../shared/contracts/mappings'
import * as watches from '../../shared/contracts/watches'
import * as invoices from '../../shared/contracts/invoices'
import * as settings from '../../shared/contracts/spend-settings'
import { id, numbered } from './replies'
import { readInvoices } from '../stores/invoices'
import { readRates } from '../stores/rates'
import { fileBody } from './body-limits'
import { numberOf, operation } from './operation'

const loadId = numberOf('load').transform(String)
const watchId = numberOf('watch')

/** A mapping as it is kept: one that says nothing of a file, or something unknown, would fail with every file. */
const keptMapping = mappingSchema
  .strict()
  .refine(({ numbers }) => Object.keys(numbers).length > 0, { path: ['numbers'], error: 'name at least the column that holds the cost' })

export const sources = {
  importFile: operation(
    'sources',
    'post',
    '/imports',
    'One file’s bytes as a delivery of its own: it replaces its source’s billing periods.',
    { reach: 'company', query: imports.importQuery, body: 'bytes', reply: imports.importAccepted, status: 202 },
  ),
  load: operation('sources', 'get', '/imports/{id}', 'What becomes of a load: progress, errors, sums, conformance.', {
    reach: 'company',
    parts: { id: loadId },
    reply: imports.importStatus,
  }),
  stopLoad: operation('sources', 'post', '/imports/{id}/stop', 'Stops a load; nothing of it stays.', {
    reach: 'company',
    parts: { id: loadId },
    reply: id,
  }),
  undoLoad: operation('sources', 'post', '/imports/{id}/undo', 'Takes a load back: what was loaded before counts again.', {
    reach: 'company',
    parts: { id: loadId },
    body: imports.importUndo,
    isBodyOptional: true,
    reply: id,
  }),
  redoLoad: operation('sources', 'post', '/imports/{id}/redo', 'Loads again what was taken back.', {
    reach: 'company',
    parts: { id: loadId },
    reply: id,
  }),
  remove: operation('sources', 'delete', '/sources/{source}', 'Takes all of a source out; undone as the load whose id comes back.', {
    reach: 'company',
    reply: id,
  }),
  chooseLoad: operation(
    'sources',
    'post',
    '/imports/{id}/choose',
    'What counts where a delivery meets what counts already: this, the other, or both.',
    { reach: 'company', parts: { id: loadId }, body: imports.importChoice, reply: id },
  ),
  movedLines: operation('sources', 'get', '/imports/{id}/moved', 'On which lines a restatement moved, and by how much.', {
    reach: 'company',
    parts: { id: loadId },
    reply: imports.movedLines,
  }),
  announce: operation('sources', 'post', '/deliveries', 'Announces several files that belong together.', {
    reach: 'company',
    body: imports.deliveryStart,
    reply: id,
  }),
  deliverFile: operation(
    'sources',
    'put',
    '/deliveries/{id}/files/{number}',
    'One file of an announced delivery; the last one starts the load.',
    {
      reach: 'company',
      parts: { number: numberOf('file of a delivery') },
      body: 'bytes',
      reply: z.object({ importId: z.string().nullable() }),
    },
  ),
  list: operation('sources', 'get', '/sources', 'Sources with their billing periods, freshness and missing days, and the loads.', {
    reach: 'company',
    reply: imports.sourcesOverview,
  }),
  mappings: operation('sources', 'get', '/mappings', 'Sources whose files are read through a mapping.', {
    reach: 'company',
    reply: z.object({ sources: z.array(z.string()) }),
  }),
  previewMapping: operation('sources', 'post', '/mappings/preview', 'The first rows of a file as they would become charges.', {
    reach: 'company',
    body: mappings.mappingPreviewAsked,
    limits: fileBody,
    reply: mappings.mappingPreview,
  }),
  mapping: operation('sources', 'get', '/mappings/{source}', 'How a source’s files become charges.', {
    reach: 'company',
    reply: z.object({ source: z.string(), mapping: mappingSchema }),
  }),
  saveMapping: operation('sources', 'put', '/mappings/{source}', 'Keeps how a source’s files become charges.', {
    reach: 'company',
    body: keptMapping,
    reply: mappings.mappingSaved,
  }),
  removeMapping: operation('sources', 'delete', '/mappings/{source}', 'Reads a source’s files as FOCUS again.', {
    reach: 'company',
    reply: mappings.mappingSaved,
  }),
  watches: operation('sources', 'get', '/watches', 'Folders and connections that are looked at by themselves.', {
    reach: 'company',
    reply: watches.watchList,
  }),
  watch: operation('sources', 'post', '/watches', 'Watches a folder or a connection.', {
    reach: 'company',
    body: watches.watchInput,
    reply: z.object({ id: z.number(), said: z.string() }),
  }),
  lookAtWatch: operation('sources', 'post', '/watches/{id}/look', 'Looks now.', {
    reach: 'company',
    parts: { id: watchId },
    reply: z.object({ id: z.number(), said: z.string() }),
  }),
  removeWatch: operation('sources', 'delete', '/watches/{id}', 'Watches it no longer.', {
    reach: 'company',
    parts: { id: watchId },
    reply: numbered,
  }),
  invoices: operation('sources', 'get', '/invoices', 'Invoices, each held against its loaded charges.', {
    reach: 'company',
    reply: invoices.invoiceViews,
  }),
  saveInvoice: operation('sources', 'post', '/invoices', 'Keeps an invoice; one of the same issuer and number is replaced.', {
    reach: 'company',
    body: settings.invoiceInput,
    reply: invoices.invoicesTaken,
  }),
  takeInvoices: operation('sources', 'post', '/invoices/table', 'Takes the lines of a CSV of invoices.', {
    reach: 'company',
    body: settings.invoiceTable.transform(({ lines }) => readInvoices(lines)),
    limits: fileBody,
    reply: invoices.invoicesTaken,
  }),
  removeInvoice: operation('sources', 'delete', '/invoices/{id}', 'Takes an invoice out.', {
    reach: 'company',
    parts: { id: numberOf('invoice') },
    reply: numbered,
  }),
  rates: operation('sources', 'get', '/rates', 'Exchange rates.', { reach: 'common', reply: settings.rateList }),
  takeRates: operation('sources', 'post', '/rates/table', 'Takes the lines of a CSV of exchange rates.', {
    reach: 'company',
    body: settings.rateTable.transform(({ lines }) => {
      const rates = readRates(lines)
      return { count: rates.length, text: JSON.stringify(rates) }
    }),
    limits: fileBody,
    reply: settings.ratesTaken,
  }),
}
