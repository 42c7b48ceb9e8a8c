import { codedAnswer, type CodedAnswer } from '../../core/spend/answer-columns'
import { packedAnswers, type SpendAnswer, type spendQuestions } from '../../shared/contracts/spend'
import type { z } from 'zod'
import { client } from './client'

/** An answer of several that were asked together. */
export type Answered = Omit<SpendAnswer, 'revision'> & Pick<CodedAnswer, 'coded'>

/** Asks several questions of one state of the data. */
export async function askAnswers(questions: z.input<typeof spendQuestions>['questions'], signal?: AbortSignal): Promise<Answered[]> {
  const { answers } = await client.send('POST', 'spend/answers', { questions, packed: true }, packedAnswers, signal)
  return answers.map(answer => codedAnswer(answer))
}
