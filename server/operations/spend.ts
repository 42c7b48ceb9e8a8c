import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import * as estimates from '../../shared/contracts/estimates'
import * as jump from '../../shared/contracts/jump'
import * as resources from '../../shared/contracts/resources'
import * as contracts from '../../shared/contracts/spend'
import * as exporting from '../../shared/contracts/spend-export'
import * as settings from '../../shared/contracts/spend-settings'
import { id } from './replies'
import { fileBody } from './body-limits'
import { operation } from './operation'

export const spend = {
  answer: operation(
    'spend',
    'post',
    '/spend/answer',
    'Answers a question about the charges: totals per currency or unit, rows largest first, and the rest.',
    { reach: 'bounded', body: contracts.spendQuestion, reply: contracts.spendAnswer },
  ),
  answers: operation('spend', 'post', '/spend/answers', 'Answers several questions from one state of the data.', {
    reach: 'bounded',
    body: contracts.spendQuestions,
    reply: z.union([contracts.spendAnswers, contracts.packedAnswers]),
  }),
  compare: operation('spend', 'post', '/spend/compare', 'One period against another: contributions with what quantity and price did.', {
    reach: 'bounded',
    body: contracts.compareQuestion,
    reply: contracts.spendComparison,
  }),
  dimensions: operation(
    'spend',
    'get',
    '/spend/dimensions',
    'What spend can be split by and narrowed to, and the days and currencies that are loaded.',
    { reach: 'bounded', reply: contracts.dimensionList },
  ),
  priceParts: operation('spend', 'post', '/spend/price-parts', 'A narrowing taken apart into quantity × unit price.', {
    reach: 'bounded',
    body: contracts.spendQuestion,
    reply: contracts.priceParts,
  }),
  used: operation('spend', 'post', '/spend/used', 'What ran in a month within a narrowing: quantities by resource and SKU.', {
    reach: 'bounded',
    body: estimates.usedAsked,
    reply: estimates.usedLines,
  }),
  table: operation('spend', 'post', '/spend/table', 'The table of a question as a file, exactly as it is shown.', {
    reach: 'bounded',
    body: exporting.tableExport,
    reply: 'file',
  }),
  lines: operation('spend', 'post', '/spend/lines', 'The charge lines behind a question, with chosen FOCUS columns, as a file.', {
    reach: 'bounded',
    body: exporting.linesExport,
    reply: 'file',
  }),
  linesSize: operation('spend', 'post', '/spend/lines-size', 'How many charge lines there are, and about how many bytes they make.', {
    reach: 'bounded',
    body: exporting.linesExport,
    reply: exporting.linesSize,
  }),
  tagCoverage: operation(
    'spend',
    'post',
    '/spend/tags/coverage',
    'Cost day by day by whether it has a tag, lacks it, or is from before it was reported.',
    { reach: 'bounded', body: contracts.tagAsked, reply: contracts.tagDays },
  ),
  lateTags: operation('spend', 'post', '/spend/tags/late', 'Sources whose charges are from before they reported a tag.', {
    reach: 'bounded',
    body: contracts.tagAsked,
    reply: contracts.lateTags,
  }),
  firstSeenTags: operation('spend', 'post', '/spend/tags/first-seen', 'From which day on tags have been reported.', {
    reach: 'bounded',
    body: contracts.tagKeysAsked,
    reply: contracts.firstSeen,
  }),
  reference: operation('spend', 'get', '/spend/reference', 'Aliases, the account tree, inherited tags and own words for SKUs.', {
    reach: 'company',
    reply: settings.referenceState,
  }),
  saveAccountTree: operation(
    'spend',
    'put',
    '/spend/account-tree',
    'Where accounts stand and which tags are inherited; in place of what was there.',
    { reach: 'company', body: settings.accountTree, limits: fileBody, reply: z.object({ accounts: z.number(), containers: z.number() }) },
  ),
  saveReportCurrency: operation('spend', 'put', '/spend/report-currency', 'The currency that the company reports in; null for none.', {
    reach: 'company',
    body: settings.reportCurrencyChange,
    reply: settings.reportCurrencyChange,
  }),
  changeAlias: operation('spend', 'post', '/spend/aliases', 'Lets spellings of a value count as one; null takes that back.', {
    reach: 'company',
    body: settings.aliasChange,
    reply: z.object({ aliases: namedRecord(z.string()) }),
  }),
  requireTags: operation('spend', 'put', '/spend/required-tags', 'Which tags usage must have, in place of all that were required.', {
    reach: 'company',
    body: settings.requiredTags,
    reply: settings.requiredTags,
  }),
  changeSku: operation('spend', 'post', '/spend/skus', 'Own words for a SKU code; null takes them back.', {
    reach: 'company',
    body: settings.skuChange,
    reply: z.object({ sku: z.string() }),
  }),
  resource: operation('spend', 'get', '/resources', 'Everything that is known about one resource.', {
    reach: 'bounded',
    query: resources.resourceQuery,
    reply: resources.resourceView,
  }),
  makers: operation('spend', 'post', '/resources/makers', 'Who made resources, and what else they made.', {
    reach: 'company',
    body: resources.makersAsked,
    reply: resources.makers,
  }),
  reportedResource: operation(
    'spend',
    'get',
    '/resources/reported',
    'What its cloud says of a resource now: status, locks, planned starts and stops, measurements.',
    { reach: 'bounded', query: resources.resourceQuery, reply: resources.resourceReport },
  ),
  saveResourceNote: operation('spend', 'put', '/resources/note', 'Keeps the note of a resource, in Markdown.', {
    reach: 'bounded',
    body: resources.resourceNote,
    reply: id,
  }),
  jump: operation('spend', 'get', '/jump', 'Anything with a place of its own whose name or id holds a text.', {
    reach: 'bounded',
    query: jump.jumpQuery,
    reply: jump.jumpReply,
  }),
}
