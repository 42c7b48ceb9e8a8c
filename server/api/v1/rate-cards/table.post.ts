import { cardFromTable } from '../../../../core/ratecard/card-table'
import { cardTable } from '../../../../shared/contracts/reference-data'
import { Problem } from '../../../http/problem'
import { takeRateCard } from '../../../engine/take-rate-card'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'

const MOST_SAID = 50

/** Takes a rate card as the lines of a CSV file; refused line by line. */
export default route(async ({ event, database, cube, who }) => {
  const read = cardFromTable((await body(event, cardTable, fileBody)).lines)
  if ('problems' in read) {
    const errors = read.problems.map(({ line, column, message }) => ({ field: `line ${line}, ${column}`, reason: message }))
    throw new Problem(
      422,
      'invalid',
      'The rate card was not taken',
      errors
        .slice(0, MOST_SAID)
        .map(({ field, reason }) => `${field}: ${reason}`)
        .join('; '),
      errors,
    )
  }
  const { card } = read
  return {
    provider: card.provider,
    validFrom: card.validFrom,
    prices: card.prices.length,
    ...(await takeRateCard({ database, cube }, card, who)),
  }
})
