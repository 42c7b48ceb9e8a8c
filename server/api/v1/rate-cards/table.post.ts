import { cardFromTable } from '../../../../core/ratecard/card-table'
import { Problem } from '../../../http/problem'
import { takeRateCard } from '../../../engine/take-rate-card'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

const MOST_SAID = 50

/** Takes a rate card as the lines of a CSV file; refused line by line. */
export default route(operations.rateCards.takeTable, async ({ database, cube, who, body }) => {
  const read = cardFromTable(body.lines)
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
