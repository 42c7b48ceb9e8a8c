import { z } from 'zod'
import { ConnectorFailed } from '../../connectors/connector'
import { sendMail } from '../../connectors/mail'
import { workFor } from '../../use-cases/work'
import { sentenceMail } from '../../use-cases/sentence-mail'
import { findSentence } from '../../stores/sentences'
import { NotKnown } from '../../problems/job-ends'
import type { JobKind } from './kind'

/** Sends a saved sentence's file to those who get it. Where nobody knows whether a mail was taken, it is not sent again automatically. */
export const mail: JobKind<{ sentence: string }> = {
  kind: 'mail',
  does: 'Mail a saved sentence',
  argument: z.object({ sentence: z.string() }),
  stops: false,
  async describe({ sentence }, db) {
    const row = await findSentence(db, sentence)
    return {
      about: row ? `${row.name}${row.schedule ? `, to ${row.schedule.to.join(', ')}` : ''}` : 'a sentence that is gone',
      page: '/spend/saved',
    }
  },
  async run({ sentence: id }, run) {
    const { services, key } = run
    const sentence = await findSentence(services.database.db, id)
    const made = sentence
      ? await sentenceMail(workFor(services, services.people.actingFor(sentence.owner)), sentence)
      : 'The sentence is not kept any more: nothing was sent.'
    if (typeof made === 'string') return { said: made, result: undefined }
    const to = made.to.join(', ')
    await run.about(`the mail to ${to} was sent`)
    try {
      await sendMail({ ...made, key })
    } catch (error) {
      if (error instanceof ConnectorFailed && !error.sure)
        throw new NotKnown(
          `It is not known whether the mail to ${to} was sent: ${error.message}. It is not sent again automatically; ask them, then send it now if it did not come.`,
        )
      throw error
    }
    return { said: `sent to ${to}`, result: undefined }
  },
}
