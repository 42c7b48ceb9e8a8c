import { unpackAnswer, type PackedColumn } from '../../../../core/spend/packed'
import type { PackedAnswers } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

const written = <T>({ values, codes }: PackedColumn<T>) => ({ values, codes: Array.from(codes) })

/** Several questions answered from one state of the data, so that their figures fit each other. */
export default route(operations.spend.answers, async ({ cube, body }) => {
  const { questions, packed } = body
  questions.forEach(checkScope)
  const { revision, result } = await cube.ask('answers', questions)
  if (!packed) return { answers: result.map(answer => unpackAnswer(answer)), revision }
  return {
    answers: result.map(({ rows, ...answer }) => ({
      ...answer,
      rows: {
        ...rows,
        splits: rows.splits.map(written),
        starts: rows.starts && written(rows.starts),
        currencies: written(rows.currencies),
      },
    })),
    revision,
  } satisfies PackedAnswers
})
