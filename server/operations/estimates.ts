import { z } from 'zod'
import { patternSchema, patternShape } from '../../core/estimate/pattern'
import { upliftSetSchema } from '../../core/uplift/uplift-set'
import * as contracts from '../../shared/contracts/estimates'
import { numberOf, operation } from './operation'

export const estimates = {
  list: operation('estimates', 'get', '/estimates', 'The newest version of every estimate.', {
    reach: 'common',
    reply: contracts.estimateList,
  }),
  find: operation('estimates', 'get', '/estimates/{id}', 'An estimate as it was saved last, or in a version.', {
    reach: 'common',
    query: contracts.versionAsked,
    reply: contracts.savedEstimate,
  }),
  save: operation('estimates', 'put', '/estimates/{id}', 'Saves an estimate; it names the version it was made from.', {
    reach: 'common',
    parts: { id: contracts.estimateId },
    body: contracts.estimateSave,
    reply: contracts.estimateSaved,
  }),
  file: operation('estimates', 'put', '/estimates/{id}/filing', 'Files an estimate in a folder, puts it away or brings it back.', {
    reach: 'common',
    body: contracts.filing,
    reply: contracts.kept,
  }),
  versions: operation('estimates', 'get', '/estimates/{id}/versions', 'Every saved state.', {
    reach: 'common',
    reply: contracts.versionList,
  }),
  nameVersion: operation('estimates', 'put', '/estimates/{id}/versions/{version}', 'Gives a saved state a name.', {
    reach: 'common',
    parts: { version: numberOf('version of the estimate') },
    body: contracts.versionName,
    reply: contracts.kept,
  }),
  export: operation('estimates', 'post', '/estimates/{id}/export', 'A version as CSV, XLSX or PDF.', {
    reach: 'common',
    body: contracts.exportAsked,
    reply: 'file',
  }),
  links: operation('estimates', 'get', '/estimates/{id}/links', 'Links that show a version.', {
    reach: 'common',
    reply: contracts.linkList,
  }),
  makeLink: operation('estimates', 'post', '/estimates/{id}/links', 'Makes a link.', {
    reach: 'common',
    body: contracts.linkAsked,
    reply: contracts.linkMade,
  }),
  revokeLink: operation('estimates', 'delete', '/links/{id}', 'Takes a link back.', { reach: 'common', reply: contracts.kept }),
  openLink: operation('estimates', 'get', '/shared/{secret}', 'What a link shows.', {
    reach: 'common',
    reply: z.object({ document: z.object({}).loose(), expiresOn: z.string(), madeAt: z.string() }),
  }),
  patterns: operation('estimates', 'get', '/patterns', 'Patterns.', { reach: 'common', reply: contracts.patternList }),
  savePattern: operation('estimates', 'post', '/patterns', 'Keeps a pattern.', {
    reach: 'common',
    body: patternSchema,
    shownBody: patternShape,
    reply: contracts.kept,
  }),
  removePattern: operation('estimates', 'delete', '/patterns/{id}', 'Takes a pattern out.', { reach: 'common', reply: contracts.kept }),
  uplifts: operation('estimates', 'get', '/uplifts', 'The organisation’s uplifts.', { reach: 'common', reply: contracts.upliftList }),
  saveUplift: operation('estimates', 'post', '/uplifts', 'Keeps a set of uplifts.', {
    reach: 'common',
    body: upliftSetSchema,
    reply: contracts.kept,
  }),
  removeUplift: operation('estimates', 'delete', '/uplifts/{id}', 'Takes a set out.', { reach: 'common', reply: contracts.kept }),
}
