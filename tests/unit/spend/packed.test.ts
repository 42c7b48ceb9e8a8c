import fc from 'fast-check'
import { expect, it } from 'vitest'
import { packAnswer, unpackAnswer } from '../../../core/spend/packed'
import type { AnswerRow } from '../../../core/spend/question'

const value = fc.option(fc.constantFrom('', 'a', 'b c', 'ü'), { nil: null })

it('packed rows are the same rows again, also as JSON', () => {
  const rows = (timed: boolean) =>
    fc.array(
      fc.record({
        values: fc.record({ x: value, y: value }),
        start: timed ? fc.constantFrom('2026-10-01', '2026-10-02T05') : fc.constant(null),
        currency: fc.constantFrom('EUR', 'USD'),
        amount: fc.constantFrom('0', '-1.5', '12345678901234567890.000000000000001'),
      }) as fc.Arbitrary<AnswerRow>,
      { maxLength: 30 },
    )
  fc.assert(
    fc.property(fc.boolean().chain(rows), list => {
      const answer = { totals: [{ currency: 'EUR', amount: '1' }], rest: null, rows: list, original: [] }
      const packed = packAnswer(answer, ['x', 'y'])
      expect(unpackAnswer(packed)).toEqual(answer)
      const plain = (column: { codes: ArrayLike<number> } | null) => column && { ...column, codes: Array.from(column.codes) }
      const sent = JSON.parse(
        JSON.stringify({
          ...packed,
          rows: {
            ...packed.rows,
            splits: packed.rows.splits.map(plain),
            starts: plain(packed.rows.starts),
            currencies: plain(packed.rows.currencies),
          },
        }),
      ) as typeof packed
      expect(unpackAnswer(sent)).toEqual(answer)
    }),
  )
})
