import { rateCardSchema, rateCardShape } from '../../../core/ratecard/rate-card'
import * as reference from '../../../shared/contracts/reference-data'
import { fileBody } from '../read-json'
import { operation } from './operation'

export const rateCards = {
  list: operation('rate cards', 'get', '/rate-cards', 'The rate cards that are loaded.', { reply: reference.rateCardList }),
  take: operation('rate cards', 'post', '/rate-cards', 'Takes a rate card.', {
    body: rateCardSchema,
    shownBody: rateCardShape,
    limits: fileBody,
    reply: reference.rateCardLoaded,
  }),
  takeTable: operation('rate cards', 'post', '/rate-cards/table', 'Takes a rate card as the lines of a CSV file.', {
    body: reference.cardTable,
    limits: fileBody,
    reply: reference.rateCardLoaded,
  }),
  find: operation('rate cards', 'get', '/rate-cards/{provider}', 'A provider’s rate card as of a day.', {
    query: reference.cardAsked,
    reply: rateCardShape,
  }),
  describe: operation('rate cards', 'post', '/rate-cards/describe', 'SKU codes in plain words.', {
    body: reference.skusAsked,
    reply: reference.skusDescribed,
  }),
}
