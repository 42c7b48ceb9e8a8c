import { z } from 'zod'
import { namedRecord } from '../../../core/text/named-record'
import { allocationPlanSchema } from '../../../core/allocation/plan'
import { mappingSchema } from '../../../core/focus/mapping/mapping'
import { patternShape } from '../../../core/estimate/pattern'
import { rateCardShape } from '../../../core/ratecard/rate-card'
import { upliftSetSchema } from '../../../core/uplift/uplift-set'
import * as allocation from '../../../shared/contracts/allocation'
import * as connections from '../../../shared/contracts/connections'
import * as estimates from '../../../shared/contracts/estimates'
import * as imports from '../../../shared/contracts/imports'
import * as invoices from '../../../shared/contracts/invoices'
import * as jobs from '../../../shared/contracts/jobs'
import * as jump from '../../../shared/contracts/jump'
import * as maintenance from '../../../shared/contracts/maintenance'
import * as people from '../../../shared/contracts/people'
import * as reference from '../../../shared/contracts/reference-data'
import * as resources from '../../../shared/contracts/resources'
import * as savings from '../../../shared/contracts/savings'
import * as spend from '../../../shared/contracts/spend'
import * as exporting from '../../../shared/contracts/spend-export'
import * as settings from '../../../shared/contracts/spend-settings'

export type Operation = {
  method: 'get' | 'post' | 'put' | 'delete'
  /** As OpenAPI writes it: `/imports/{id}`. */
  path: string
  tag: string
  says: string
  query?: z.ZodObject
  body?: z.ZodType | 'bytes'
  /** What comes back; a file for `file`, a JSON Schema of its own where there is no contract. */
  reply: z.ZodType | 'file'
  status?: number
}

const id = z.object({ id: z.string() })
const numbered = z.object({ id: z.number() })
const op = (
  tag: string,
  method: Operation['method'],
  path: string,
  says: string,
  more: Omit<Operation, 'tag' | 'method' | 'path' | 'says'>,
): Operation => ({ tag, method, path, says, ...more })

/** Everything the interface does over HTTP, with the same contracts as the pages use. */
export const operations: readonly Operation[] = [
  op(
    'spend',
    'post',
    '/spend/answer',
    'Answers a question about the charges: totals per currency or unit, rows largest first, and the rest.',
    { body: spend.spendQuestion, reply: spend.spendAnswer },
  ),
  op('spend', 'post', '/spend/answers', 'Answers several questions from one state of the data.', {
    body: spend.spendQuestions,
    reply: z.union([spend.spendAnswers, spend.packedAnswers]),
  }),
  op('spend', 'post', '/spend/compare', 'One period against another: contributions with what quantity and price did.', {
    body: spend.compareQuestion,
    reply: spend.spendComparison,
  }),
  op('spend', 'get', '/spend/dimensions', 'What spend can be split by and narrowed to, and the days and currencies that are loaded.', {
    reply: spend.dimensionList,
  }),
  op('spend', 'post', '/spend/price-parts', 'A narrowing taken apart into quantity × unit price.', {
    body: spend.spendQuestion,
    reply: spend.priceParts,
  }),
  op('spend', 'post', '/spend/used', 'What ran in a month within a narrowing: quantities by resource and SKU.', {
    body: estimates.usedAsked,
    reply: estimates.usedLines,
  }),
  op('spend', 'post', '/spend/table', 'The table of a question as a file, exactly as it is shown.', {
    body: exporting.tableExport,
    reply: 'file',
  }),
  op('spend', 'post', '/spend/lines', 'The charge lines behind a question, with chosen FOCUS columns, as a file.', {
    body: exporting.linesExport,
    reply: 'file',
  }),
  op('spend', 'post', '/spend/lines-size', 'How many charge lines there are, and about how many bytes they make.', {
    body: exporting.linesExport,
    reply: exporting.linesSize,
  }),
  op('spend', 'post', '/spend/tags/coverage', 'Cost day by day by whether it has a tag, lacks it, or is from before it was reported.', {
    body: spend.tagAsked,
    reply: spend.tagDays,
  }),
  op('spend', 'post', '/spend/tags/late', 'Sources whose charges are from before they reported a tag.', {
    body: spend.tagAsked,
    reply: spend.lateTags,
  }),
  op('spend', 'post', '/spend/tags/first-seen', 'From which day on tags have been reported.', {
    body: spend.tagKeysAsked,
    reply: spend.firstSeen,
  }),
  op('spend', 'get', '/spend/reference', 'Aliases, the account tree, inherited tags and own words for SKUs.', {
    reply: settings.referenceState,
  }),
  op('spend', 'put', '/spend/account-tree', 'Where accounts stand and which tags are inherited; in place of what was there.', {
    body: settings.accountTree,
    reply: z.object({ accounts: z.number(), containers: z.number() }),
  }),
  op('spend', 'post', '/spend/aliases', 'Lets spellings of a value count as one; null takes that back.', {
    body: settings.aliasChange,
    reply: z.object({ aliases: namedRecord(z.string()) }),
  }),
  op('spend', 'post', '/spend/skus', 'Own words for a SKU code; null takes them back.', {
    body: settings.skuChange,
    reply: z.object({ sku: z.string() }),
  }),
  op('spend', 'get', '/resources', 'Everything that is known about one resource.', {
    query: resources.resourceQuery,
    reply: resources.resourceView,
  }),
  op(
    'spend',
    'get',
    '/resources/reported',
    'What its cloud says of a resource now: status, locks, planned starts and stops, measurements.',
    { query: resources.resourceQuery, reply: resources.resourceReport },
  ),
  op('spend', 'put', '/resources/note', 'Keeps the note of a resource, in Markdown.', { body: resources.resourceNote, reply: id }),
  op('spend', 'get', '/jump', 'Anything with a place of its own whose name or id holds a text.', {
    query: jump.jumpQuery,
    reply: jump.jumpReply,
  }),
  op('sentences', 'get', '/sentences', 'Saved sentences: shared ones and the own.', { reply: settings.savedSentenceList }),
  op('sentences', 'post', '/sentences/long', 'A short id for the address of a Sentence that is too long for one.', {
    body: settings.savedSentenceBody,
    reply: id,
  }),
  op('sentences', 'get', '/sentences/long/{id}', 'The address that a short id stands for.', { reply: settings.savedSentenceBody }),
  op('sentences', 'put', '/sentences/{id}', 'Keeps a sentence under an id.', { body: settings.savedSentenceInput, reply: id }),
  op('sentences', 'delete', '/sentences/{id}', 'Takes a sentence out.', { reply: id }),
  op('sentences', 'post', '/sentences/{id}/send', 'Sends a sentence’s file by mail now.', { reply: z.object({ said: z.string() }) }),
  op('sources', 'post', '/imports', 'One file’s bytes as a delivery of its own: it replaces its source’s billing periods.', {
    query: imports.importQuery,
    body: 'bytes',
    reply: imports.importAccepted,
    status: 202,
  }),
  op('sources', 'get', '/imports/{id}', 'What becomes of a load: progress, errors, sums, conformance.', { reply: imports.importStatus }),
  op('sources', 'post', '/imports/{id}/stop', 'Stops a load; nothing of it stays.', { reply: id }),
  op('sources', 'post', '/imports/{id}/undo', 'Takes a load back: what was loaded before counts again.', {
    body: imports.importUndo,
    reply: id,
  }),
  op('sources', 'post', '/imports/{id}/redo', 'Loads again what was taken back.', { reply: id }),
  op('sources', 'delete', '/sources/{source}', 'Takes all of a source out; undone as the load whose id comes back.', { reply: id }),
  op('sources', 'post', '/imports/{id}/choose', 'What counts where a delivery meets what counts already: this, the other, or both.', {
    body: imports.importChoice,
    reply: id,
  }),
  op('sources', 'get', '/imports/{id}/moved', 'On which lines a restatement moved, and by how much.', { reply: imports.movedLines }),
  op('sources', 'post', '/deliveries', 'Announces several files that belong together.', { body: imports.deliveryStart, reply: id }),
  op('sources', 'put', '/deliveries/{id}/files/{number}', 'One file of an announced delivery; the last one starts the load.', {
    body: 'bytes',
    reply: z.object({ importId: z.string().nullable() }),
  }),
  op('sources', 'get', '/sources', 'Sources with their billing periods, freshness and missing days, and the loads.', {
    reply: imports.sourcesOverview,
  }),
  op('sources', 'get', '/mappings', 'Sources whose files are read through a mapping.', {
    reply: z.object({ sources: z.array(z.string()) }),
  }),
  op('sources', 'post', '/mappings/preview', 'The first rows of a file as they would become charges.', {
    body: imports.mappingPreviewAsked,
    reply: imports.mappingPreview,
  }),
  op('sources', 'get', '/mappings/{source}', 'How a source’s files become charges.', {
    reply: z.object({ source: z.string(), mapping: mappingSchema }),
  }),
  op('sources', 'put', '/mappings/{source}', 'Keeps how a source’s files become charges.', {
    body: mappingSchema,
    reply: imports.mappingSaved,
  }),
  op('sources', 'delete', '/mappings/{source}', 'Reads a source’s files as FOCUS again.', { reply: imports.mappingSaved }),
  op('sources', 'get', '/watches', 'Folders and connections that are looked at by themselves.', { reply: imports.watchList }),
  op('sources', 'post', '/watches', 'Watches a folder or a connection.', {
    body: imports.watchInput,
    reply: z.object({ id: z.number(), said: z.string() }),
  }),
  op('sources', 'post', '/watches/{id}/look', 'Looks now.', { reply: z.object({ id: z.number(), said: z.string() }) }),
  op('sources', 'delete', '/watches/{id}', 'Watches it no longer.', { reply: numbered }),
  op('sources', 'get', '/invoices', 'Invoices, each held against its loaded charges.', { reply: invoices.invoiceViews }),
  op('sources', 'post', '/invoices', 'Keeps an invoice; one of the same issuer and number is replaced.', {
    body: settings.invoiceInput,
    reply: invoices.invoicesTaken,
  }),
  op('sources', 'post', '/invoices/table', 'Takes the lines of a CSV of invoices.', {
    body: settings.invoiceTable,
    reply: invoices.invoicesTaken,
  }),
  op('sources', 'delete', '/invoices/{id}', 'Takes an invoice out.', { reply: numbered }),
  op('sources', 'get', '/rates', 'Exchange rates.', { reply: settings.rateList }),
  op('sources', 'post', '/rates/table', 'Takes the lines of a CSV of exchange rates.', {
    body: settings.rateTable,
    reply: settings.ratesTaken,
  }),
  op('rate cards', 'get', '/rate-cards', 'The rate cards that are loaded.', { reply: reference.rateCardList }),
  op('rate cards', 'post', '/rate-cards', 'Takes a rate card.', { body: rateCardShape, reply: reference.rateCardLoaded }),
  op('rate cards', 'post', '/rate-cards/table', 'Takes a rate card as the lines of a CSV file.', {
    body: reference.cardTable,
    reply: reference.rateCardLoaded,
  }),
  op('rate cards', 'get', '/rate-cards/{provider}', 'A provider’s rate card as of a day.', {
    query: reference.cardAsked,
    reply: rateCardShape,
  }),
  op('rate cards', 'post', '/rate-cards/describe', 'SKU codes in plain words.', {
    body: reference.skusAsked,
    reply: reference.skusDescribed,
  }),
  op('estimates', 'get', '/estimates', 'The newest version of every estimate.', { reply: estimates.estimateList }),
  op('estimates', 'get', '/estimates/{id}', 'An estimate as it was saved last, or in a version.', {
    query: estimates.versionAsked,
    reply: estimates.savedEstimate,
  }),
  op('estimates', 'put', '/estimates/{id}', 'Saves an estimate; it names the version it was made from.', {
    body: estimates.estimateSave,
    reply: estimates.estimateSaved,
  }),
  op('estimates', 'put', '/estimates/{id}/filing', 'Files an estimate in a folder, puts it away or brings it back.', {
    body: estimates.filing,
    reply: estimates.kept,
  }),
  op('estimates', 'get', '/estimates/{id}/versions', 'Every saved state.', { reply: estimates.versionList }),
  op('estimates', 'put', '/estimates/{id}/versions/{version}', 'Gives a saved state a name.', {
    body: estimates.versionName,
    reply: estimates.estimateSaved,
  }),
  op('estimates', 'post', '/estimates/{id}/export', 'A version as CSV, XLSX or PDF.', { body: estimates.exportAsked, reply: 'file' }),
  op('estimates', 'get', '/estimates/{id}/links', 'Links that show a version.', { reply: estimates.linkList }),
  op('estimates', 'post', '/estimates/{id}/links', 'Makes a link.', { body: estimates.linkAsked, reply: estimates.linkMade }),
  op('estimates', 'delete', '/links/{id}', 'Takes a link back.', { reply: estimates.kept }),
  op('estimates', 'get', '/shared/{secret}', 'What a link shows.', {
    reply: z.object({ document: z.object({}).loose(), expiresOn: z.string(), madeAt: z.string() }),
  }),
  op('estimates', 'get', '/patterns', 'Patterns.', { reply: estimates.patternList }),
  op('estimates', 'post', '/patterns', 'Keeps a pattern.', { body: patternShape, reply: estimates.kept }),
  op('estimates', 'delete', '/patterns/{id}', 'Takes a pattern out.', { reply: estimates.kept }),
  op('estimates', 'get', '/uplifts', 'The organisation’s own charges.', { reply: estimates.upliftList }),
  op('estimates', 'post', '/uplifts', 'Keeps a set of own charges.', { body: upliftSetSchema, reply: estimates.kept }),
  op('estimates', 'delete', '/uplifts/{id}', 'Takes a set out.', { reply: estimates.kept }),
  op('allocation', 'get', '/allocation/plan', 'Cost centres, rules and pools.', {
    reply: z.object({ plan: allocation.planState.nullable() }),
  }),
  op('allocation', 'put', '/allocation/plan', 'Saves them as the next version.', {
    body: allocation.planSave,
    reply: allocation.planSaved,
  }),
  op('allocation', 'post', '/allocation/preview', 'A month under a plan that is not saved.', {
    body: allocation.planPreview,
    reply: allocation.settlement,
  }),
  op('allocation', 'get', '/allocation/settlement', 'A billing month put on cost centres.', {
    query: allocation.allocationQuestion,
    reply: allocation.settlement,
  }),
  op('allocation', 'post', '/organisation', 'People, cost centres, rules and pool.', {
    body: reference.organisation.extend({ plan: allocationPlanSchema }),
    reply: reference.organisationLoaded,
  }),
  op('savings', 'get', '/savings', 'Opportunities and the ledger.', { reply: savings.savingsState }),
  op('savings', 'post', '/savings/look', 'Looks again through the connector.', { reply: savings.savingsState }),
  op('savings', 'post', '/savings/preview', 'What approving would do.', { body: id, reply: savings.actionPreview }),
  op('savings', 'post', '/savings/approve', 'Approves and carries out one opportunity, once.', { body: id, reply: savings.savingsState }),
  op('connections', 'get', '/connections', 'What is connected and whether it answers.', { reply: connections.connectionState }),
  op('connections', 'get', '/connections/kinds', 'Kinds of outside services, and what each can do.', {
    reply: connections.connectorKindList,
  }),
  op('connections', 'post', '/connections', 'Makes a connection.', { body: connections.connectionInput, reply: id }),
  op('connections', 'post', '/connections/test', 'Asks a service whose it is; keeps nothing.', {
    body: connections.connectionTest,
    reply: connections.connectionTested,
  }),
  op('connections', 'put', '/connections/{name}', 'Changes how a connection is reached.', {
    body: connections.connectionInput.omit({ name: true }),
    reply: id,
  }),
  op('connections', 'delete', '/connections/{name}', 'Takes a connection out; what it has delivered stays.', { reply: id }),
  op('connections', 'get', '/connections/schedules', 'How often connections are asked for rate cards.', { reply: reference.cardSchedules }),
  op('connections', 'post', '/connections/{name}/fetch', 'Loads the billing period to date.', { reply: savings.dayPassed }),
  op('connections', 'post', '/connections/{name}/next-day', 'Lets a day pass at a simulated cloud and loads what it delivers.', {
    reply: savings.dayPassed,
  }),
  op('connections', 'post', '/connections/{name}/rate-card', 'Asks for the rate card it publishes.', { reply: reference.cardFetched }),
  op('connections', 'put', '/connections/{name}/schedule', 'How often a connection is asked for its rate card.', {
    body: reference.scheduleAsked,
    reply: z.object({ connection: z.string(), everyHours: z.number() }),
  }),
  op('jobs', 'get', '/jobs', 'What runs by itself, and what runs now.', { reply: jobs.jobList }),
  op('jobs', 'put', '/jobs/{id}', 'Changes a rhythm, pauses a job or lets it go on.', { body: jobs.jobChange, reply: numbered }),
  op('jobs', 'post', '/jobs/{id}/run', 'Runs a job now.', { reply: numbered }),
  op('jobs', 'post', '/jobs/{id}/stop', 'Asks a job to stop.', { reply: numbered }),
  op('people', 'get', '/people', 'People, and whom one works as.', { reply: people.peopleList }),
  op('people', 'post', '/people/chosen', 'Chooses whom one works as.', { body: people.chosenPerson, reply: people.chosenPerson }),
  op('maintenance', 'get', '/maintenance/backup', 'Everything that is kept, as one file; for whoever can read the data folder.', {
    reply: 'file',
  }),
  op('maintenance', 'get', '/maintenance/check', 'Reads everything that is kept and names what is damaged.', {
    reply: maintenance.checked,
  }),
  op('server', 'get', '/health', 'Answers when the server can.', { reply: z.object({}).loose() }),
  op('server', 'get', '/openapi.json', 'This document.', { reply: z.object({}).loose() }),
]
