import { cardFromTable } from '../../core/ratecard/card-table'
import { rateCardSchema, rateCardShape, type RateCard } from '../../core/ratecard/rate-card'
import * as reference from '../../shared/contracts/reference-data'
import { fileBody } from './body-limits'
import { Problem } from '../problems/problem'
import { packedCard } from '../stores/rate-cards'
import { operation } from './operation'

const MOST_SAID = 50

/** The card in the lines of a table. @throws Problem naming every line that is wrong. */
function cardOf(lines: Record<string, string>[]): RateCard {
  const read = cardFromTable(lines)
  if ('card' in read) return read.card
  const errors = read.problems.map(({ line, column, message }) => ({ field: `line ${line}, ${column}`, reason: message }))
  const said = errors.slice(0, MOST_SAID).map(({ field, reason }) => `${field}: ${reason}`)
  throw new Problem('invalid', 'invalid', 'The rate card was not taken', said.join('; '), errors)
}

export const rateCards = {
  list: operation('rate cards', 'get', '/rate-cards', 'The rate cards that are loaded.', {
    reach: 'common',
    reply: reference.rateCardList,
  }),
  take: operation('rate cards', 'post', '/rate-cards', 'Takes a rate card.', {
    reach: 'company',
    body: rateCardSchema.transform(packedCard),
    shownBody: rateCardShape,
    limits: fileBody,
    reply: reference.rateCardLoaded,
  }),
  takeTable: operation('rate cards', 'post', '/rate-cards/table', 'Takes a rate card as the lines of a CSV file.', {
    reach: 'company',
    body: reference.cardTable.transform(({ lines }) => packedCard(cardOf(lines))),
    limits: fileBody,
    reply: reference.rateCardLoaded,
  }),
  find: operation('rate cards', 'get', '/rate-cards/{provider}', 'A provider’s rate card as of a day.', {
    reach: 'common',
    query: reference.cardAsked,
    reply: rateCardShape,
  }),
  describe: operation('rate cards', 'post', '/rate-cards/describe', 'SKU codes in plain words.', {
    reach: 'common',
    body: reference.skusAsked,
    reply: reference.skusDescribed,
  }),
}
