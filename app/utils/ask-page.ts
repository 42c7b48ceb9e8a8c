import { valuesIn } from '../../core/spend/answer-columns'
import type { Asked } from '../../core/spend/page/asked'
import { mapPage, type Page, type PageAsked } from '../../core/spend/page/questions'
import type { Sentence } from '../../core/spend/sentence'
import { spendComparison, type SpendComparison } from '../../shared/contracts/spend'
import { askAnswers, type Answered } from './ask-answers'
import { client } from './client'

/** Asks all that a page is made of, of one state of the data. */
export async function askPage(questions: Page<Asked>, signal: AbortSignal): Promise<Page<Answered>> {
  const listed: Asked[] = []
  mapPage(questions, question => listed.push(question))
  const answers = (await askAnswers(listed, signal)).values()
  return mapPage(questions, () => answers.next().value!)
}

/** Every SKU code that answers speak of. */
export function skusOf(page: Page<Answered>): (string | null | undefined)[] {
  const found: (string | null | undefined)[] = []
  mapPage(page, answer => found.push(...valuesIn(answer, 'SkuId')))
  return found
}

/** Asks why the sentence's charges differ from those it is held against. */
export function askComparison(
  { measure, splitBy, keep, leaveOut, conditions, reportCurrency }: Sentence,
  { questions: { now, before } }: PageAsked,
  signal: AbortSignal,
): Promise<SpendComparison> {
  const reaching = ({ start, end, ends }: Asked) => ({ start, end, ...(ends && { ends }) })
  const asked = {
    measure,
    splitBy: splitBy.length ? now.splitBy : ['ServiceName'],
    ...{ now: reaching(now), before: reaching(before) },
    ...(now.basis && { basis: now.basis }),
    ...{ keep, leaveOut, conditions },
    ...(reportCurrency && { reportCurrency }),
  }
  return client.send('POST', 'spend/compare', asked, spendComparison, signal)
}
