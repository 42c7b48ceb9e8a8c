import { z } from 'zod'
import * as settings from '../../shared/contracts/spend-settings'
import { id } from './replies'
import { operation } from './operation'

export const sentences = {
  list: operation('sentences', 'get', '/sentences', 'Saved sentences: shared ones and the own.', {
    reach: 'common',
    reply: settings.savedSentenceList,
  }),
  keepLong: operation('sentences', 'post', '/sentences/long', 'A short id for the address of a Sentence that is too long for one.', {
    reach: 'common',
    body: settings.savedSentenceBody,
    reply: id,
  }),
  findLong: operation('sentences', 'get', '/sentences/long/{id}', 'The address that a short id stands for.', {
    reach: 'common',
    reply: settings.savedSentenceBody,
  }),
  save: operation('sentences', 'put', '/sentences/{id}', 'Keeps a sentence under an id.', {
    reach: 'common',
    body: settings.savedSentenceInput,
    reply: id,
  }),
  remove: operation('sentences', 'delete', '/sentences/{id}', 'Takes a sentence out.', { reach: 'common', reply: id }),
  send: operation('sentences', 'post', '/sentences/{id}/send', 'Sends a sentence’s file by mail now.', {
    reach: 'common',
    reply: z.object({ said: z.string() }),
  }),
}
