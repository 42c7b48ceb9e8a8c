import type { Readable } from 'node:stream'
import { chargesOf } from '../use-cases/line-source'
import { isLineColumn, lineColumns } from '../exports/lines/charge-lines'
import { tableFormats } from '../../shared/table-formats'
import { MOST_SHEET_ROWS } from '../exports/tables/table-writer'
import type { BodyOf } from '../operations/operation'
import type { spend } from '../operations/spend'
import { Problem } from '../problems/problem'
import { checkDimensions, checkScope } from '../use-cases/check-scope'
import { CSV_CELL_BYTES } from '../../shared/contracts/spend-export'
import type { DimensionList } from '../../shared/contracts/spend'
import { tableFile } from '../use-cases/table-file'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof spend> = BodyOf<(typeof spend)[Name]>

/** Questions about the charges that whoever asks may see. */
export class Spend {
  constructor(private readonly work: EngineWork) {}

  answer(question: Body<'answer'>) {
    checkScope(question)
    return this.work.seen.reply('answer', question)
  }

  /** Several questions answered from one state of the data, so that their figures fit each other. */
  answers({ questions, packed }: Body<'answers'>) {
    questions.forEach(checkScope)
    return packed ? this.work.seen.reply('packedAnswers', questions) : this.work.seen.reply('answers', questions)
  }

  /** One period against another: who moved, by how much, and whether by quantity or by price. */
  compare(question: Body<'compare'>) {
    checkScope(question)
    return this.work.seen.reply('compare', question)
  }

  async dimensions(): Promise<DimensionList> {
    const { revision, result: facts } = await this.work.seen.ask('facts', undefined)
    return { ...facts, revision, sources: facts.sources.map(({ missing: _, firstDay: __, ...source }) => source) }
  }

  /** What the charges of a narrowing are made of: quantity × unit price, largest first. */
  priceParts(question: Body<'priceParts'>) {
    checkScope({ ...question, splitBy: [] })
    return this.work.seen.reply('priceParts', question)
  }

  /** What ran in a month within a narrowing: the quantity of each SKU by resource, from which an estimate can start. */
  used(asked: Body<'used'>) {
    checkDimensions([...Object.keys(asked.keep), ...Object.keys(asked.leaveOut)])
    return this.work.seen.reply('used', asked)
  }

  /** Cost day by day by whether it has a tag, lacks it, or is from before it was reported. */
  tagCoverage(asked: Body<'tagCoverage'>) {
    checkScope({ ...asked, splitBy: [] })
    return this.work.seen.reply('tagDays', asked)
  }

  /** Sources whose charges are from before they reported a tag. */
  lateTags(asked: Body<'lateTags'>) {
    checkScope({ ...asked, splitBy: [] })
    return this.work.seen.reply('lateTags', asked)
  }

  /** The first day on which each of some tags was reported: before, a charge without it is not untagged but too old. */
  firstSeenTags({ keys }: Body<'firstSeenTags'>) {
    return this.work.seen.reply('firstSeen', keys)
  }

  /** The table as it is shown, as a file. */
  table(asked: Body<'table'>): Promise<{ bytes: Uint8Array; mime: string }> {
    checkScope(asked.question)
    checkDimensions(asked.across && asked.across !== 'start' ? [asked.across] : [])
    return tableFile(this.work, asked)
  }

  /** How many charge lines there are and about how large they would be, said before they are made. */
  async linesSize({ question, columns }: Body<'linesSize'>) {
    checkScope({ ...question, splitBy: [] })
    const { result: rows } = await this.work.seen.ask('count', question)
    const { result: facts } = await this.work.seen.ask('facts', undefined)
    return {
      rows,
      bytes: rows * columns.length * CSV_CELL_BYTES,
      columns: [...lineColumns, ...facts.found.filter(name => name.startsWith('x_'))],
    }
  }

  /** The charge lines behind what is shown. CSV and XLSX are made as they are taken; the other formats are made whole first. */
  async lines({ question, columns, format }: Body<'lines'>): Promise<{ mime: string; pieces: Readable }> {
    checkScope({ ...question, splitBy: [] })
    const wrong = columns.filter(name => !isLineColumn(name))
    if (wrong.length)
      throw new Problem(
        'invalid',
        'no-column',
        'Charges have no such column',
        `${wrong.map(name => `«${name}»`).join(', ')}: use FOCUS columns, or a provider's own column x_NAME.`,
      )
    const { result: charges } = await this.work.seen.ask('count', question)
    if (format !== 'csv' && charges > MOST_SHEET_ROWS)
      throw new Problem(
        'invalid',
        'too-many-rows',
        'These are too many lines for this format',
        `${charges} lines: take CSV, which has no bound, or narrow what is shown.`,
      )
    const { result: facts } = await this.work.seen.ask('facts', undefined)
    const task = { scope: question, columns, format, charges, within: facts.within }
    const pieces = this.work.exporter.lines(chargesOf(this.work, question), task)
    return { mime: tableFormats[format].mime, pieces }
  }
}
