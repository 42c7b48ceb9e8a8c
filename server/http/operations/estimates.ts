import { z } from 'zod'
import { patternSchema, patternShape } from '../../../core/estimate/pattern'
import { upliftSetSchema } from '../../../core/uplift/uplift-set'
import * as contracts from '../../../shared/contracts/estimates'
import { numberOf, operation } from './operation'

export const estimates = {
  list: operation('estimates', 'get', '/estimates', 'The newest version of every estimate.', { reply: contracts.estimateList }),
  find: operation('estimates', 'get', '/estimates/{id}', 'An estimate as it was saved last, or in a version.', {
    query: contracts.versionAsked,
    reply: contracts.savedEstimate,
  }),
  save: operation('estimates', 'put', '/estimates/{id}', 'Saves an estimate; it names the version it was made from.', {
    parts: { id: contracts.estimateId },
    body: contracts.estimateSave,
    reply: contracts.estimateSaved,
  }),
  file: operation('estimates', 'put', '/estimates/{id}/filing', 'Files an estimate in a folder, puts it away or brings it back.', {
    body: contracts.filing,
    reply: contracts.kept,
  }),
  versions: operation('estimates', 'get', '/estimates/{id}/versions', 'Every saved state.', { reply: contracts.versionList }),
  nameVersion: operation('estimates', 'put', '/estimates/{id}/versions/{version}', 'Gives a saved state a name.', {
    parts: { version: numberOf('version of the estimate') },
    body: contracts.versionName,
    reply: contracts.kept,
  }),
  export: operation('estimates', 'post', '/estimates/{id}/export', 'A version as CSV, XLSX or PDF.', {
    body: contracts.exportAsked,
    reply: 'file',
  }),
  links: operation('estimates', 'get', '/estimates/{id}/links', 'Links that show a version.', { reply: contracts.linkList }),
  makeLink: operation('estimates', 'post', '/estimates/{id}/links', 'Makes a link.', {
    body: contracts.linkAsked,
    reply: contracts.linkMade,
  }),
  revokeLink: operation('estimates', 'delete', '/links/{id}', 'Takes a link back.', { reply: contracts.kept }),
  openLink: operation('estimates', 'get', '/shared/{secret}', 'What a link shows.', {
    reply: z.object({ document: z.object({}).loose(), expiresOn: z.string(), madeAt: z.string() }),
  }),
  patterns: operation('estimates', 'get', '/patterns', 'Patterns.', { reply: contracts.patternList }),
  savePattern: operation('estimates', 'post', '/patterns', 'Keeps a pattern.', {
    body: patternSchema,
    shownBody: patternShape,
    reply: contracts.kept,
  }),
  removePattern: operation('estimates', 'delete', '/patterns/{id}', 'Takes a pattern out.', { reply: contracts.kept }),
  uplifts: operation('estimates', 'get', '/uplifts', 'The organisation’s own charges.', { reply: contracts.upliftList }),
  saveUplift: operation('estimates', 'post', '/uplifts', 'Keeps a set of own charges.', { body: upliftSetSchema, reply: contracts.kept }),
  removeUplift: operation('estimates', 'delete', '/uplifts/{id}', 'Takes a set out.', { reply: contracts.kept }),
}
