import { withConnector } from '../connectors/connect'
import type { BodyOf } from '../operations/operation'
import type { sentences } from '../operations/sentences'
import { notFound } from '../problems/problem'
import { mail } from '../jobs/kinds/mail'
import { findJob } from '../stores/jobs'
import { findLongSentence, findSentence, keepLongSentence, listSentences, mailJob, removeSentence, saveSentence } from '../stores/sentences'
import { madeFor } from '../use-cases/made-by'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof sentences> = BodyOf<(typeof sentences)[Name]>

/** Sentences that are kept, sent and linked to. What is sent is what their owner may see. */
export class Sentences {
  constructor(private readonly work: EngineWork) {}

  async list() {
    return { sentences: await listSentences(this.#db, this.work.asker.id, await madeFor(this.work)) }
  }

  async save(id: string, body: Body<'save'>) {
    await saveSentence(this.#db, id, body, this.work.asker.id)
    await this.work.jobs.tell()
    return { id }
  }

  async remove(id: string) {
    await removeSentence(this.#db, id, this.work.asker.id)
    return { id }
  }

  /** Sends a saved sentence's file now instead of when it is due. */
  async send(id: string) {
    const sentence = await findSentence(this.#db, id)
    const isOwn = sentence?.owner === this.work.asker.id
    if (!sentence || !(isOwn || (sentence.shared && (await madeFor(this.work))([sentence.owner]))))
      throw notFound('saved sentence', 'It may have been deleted already.')
    if (!(await findJob(this.#db, mailJob(id)))) return { said: 'The sentence is sent to nobody: name someone under its schedule.' }
    const { said } = await withConnector(() => this.work.jobs.runNow(mail, mailJob(id), this.work.asker.id))
    return { said }
  }

  /** A short id for the address of a Sentence that is too long for one. */
  async keepLong({ query }: Body<'keepLong'>) {
    return { id: await keepLongSentence(this.#db, query) }
  }

  /** The address that a short id stands for. */
  async findLong(id: string) {
    const query = await findLongSentence(this.#db, id)
    if (!query) throw notFound('Sentence', `No Sentence is saved under «${id}». Ask whoever sent the link for a new one.`)
    return { query }
  }

  get #db() {
    return this.work.database.db
  }
}
