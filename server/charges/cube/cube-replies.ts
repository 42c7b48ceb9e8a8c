import { answersIn, answerIn, type Converted, type PackedConverted } from '../../../core/spend/convert'
import { answer, answersPacked } from '../../../core/spend/answer'
import { compare, type CompareQuestion } from '../../../core/spend/compare'
import { firstDay } from '../../../core/spend/find'
import { unpackAnswer, type PackedAnswer, type PackedColumn } from '../../../core/spend/packed'
import { pricePartsOf } from '../../../core/spend/price-parts'
import type { Answer, Question, Scope } from '../../../core/spend/question'
import { lateReports, tagCoverage } from '../../../core/spend/tag-coverage'
import { usedIn } from '../../../core/spend/used'
import { tagDimension } from '../../../core/focus/star'
import type { SkuMeaning } from '../../../core/ratecard/sku-meanings'
import type { Known } from './cube-state'

/** A question as it comes in: in one currency where it names one. */
export type Asked = Question & { reportCurrency?: string }
/** What SKU codes mean; those that nobody knows are left out. */
export const meaningsOf = (meanings: Known['meanings'], skus: readonly string[]): Record<string, SkuMeaning> =>
  Object.fromEntries(
    skus.flatMap(sku => {
      const meaning = meanings.get(sku)
      return meaning ? [[sku, meaning]] : []
    }),
  )

export const answerAsked = ({ cube, rates }: Pick<Known, 'cube' | 'rates'>, { reportCurrency, ...question }: Asked): Answer | Converted =>
  reportCurrency ? answerIn(cube, question, reportCurrency, rates) : answer(cube, question)

/** Several questions of one state of the data, their rows packed. */
export function answersAsked({ cube, rates }: Known, questions: Asked[]): (PackedAnswer | PackedConverted)[] {
  // what is asked in one currency, or as billed, is answered together: much of it is the same charges, split further
  const found = new Array<PackedAnswer | PackedConverted>(questions.length)
  for (const currency of new Set(questions.map(question => question.reportCurrency))) {
    const places = questions.flatMap((question, i) => (question.reportCurrency === currency ? [i] : []))
    const own = places.map((i): Question => {
      const { reportCurrency: _, ...question } = questions[i]!
      return question
    })
    const answers = currency ? answersIn(cube, own, currency, rates) : answersPacked(cube, own)
    answers.forEach((answer, k) => {
      found[places[k]!] = answer
    })
  }
  return found
}

const written = <T>({ values, codes }: PackedColumn<T>) => ({ values, codes: Array.from(codes) })
const packedReply = ({ rows, ...answer }: PackedAnswer | PackedConverted) => ({
  ...answer,
  rows: { ...rows, splits: rows.splits.map(written), starts: rows.starts && written(rows.starts), currencies: written(rows.currencies) },
})

/** What requests are answered with as it stands, but for the revision: written here, where it is made. */
export const replies = {
  answer: answerAsked,
  answers: (known: Known, questions: Asked[]) => ({ answers: answersAsked(known, questions).map(answer => unpackAnswer(answer)) }),
  packedAnswers: (known: Known, questions: Asked[]) => ({ answers: answersAsked(known, questions).map(packedReply) }),
  compare: ({ cube, rates }: Known, { reportCurrency, ...question }: CompareQuestion & { reportCurrency?: string }) =>
    compare(cube, question, reportCurrency ? { currency: reportCurrency, rates } : undefined),
  priceParts: ({ cube }: Known, question: Question) => pricePartsOf(cube, question),
  used: ({ cube }: Known, asked: Parameters<typeof usedIn>[1]) => usedIn(cube, asked),
  /** Cost day by day by whether it has a tag, lacks it, or is from before it was reported. */
  tagDays: ({ cube }: Known, { key, ...scope }: Scope & { key: string }) => ({ days: tagCoverage(cube, scope, tagDimension(key)) }),
  /** Sources whose charges are from before they reported a tag. */
  lateTags: ({ cube }: Known, { key, ...scope }: Scope & { key: string }) => ({ late: lateReports(cube, scope, tagDimension(key)) }),
  skus: ({ meanings }: Known, skus: string[]) => ({ skus: meaningsOf(meanings, skus) }),
  /** The first day on which each of some tags was reported: before, a charge without it is not untagged but too old. */
  firstSeen: ({ cube }: Known, keys: string[]) => ({
    tags: keys.flatMap(key => {
      const found = firstDay(cube, tagDimension(key))
      return found ? [{ key, firstDay: found }] : []
    }),
  }),
}
export type CubeReplies = typeof replies
