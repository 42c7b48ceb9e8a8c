import { z } from 'zod'
import { ConnectorFailed } from '../../connectors/connector'
import { sendMail } from '../../connectors/mail'
import { saidOf } from '../../problems/fault'
import { NotKnown } from '../../problems/job-ends'
import { claimMail, noteMail, STATEMENT_MAIL } from '../../stores/statement-mails'
import { statementMailTo } from '../../use-cases/statement-mails'
import { workFor } from '../../use-cases/work'
import type { JobKind } from './kind'

/** Sends somebody their statements of a closed month, at most once: where nobody knows whether a mail was taken, it is not sent again. */
export const statementMail: JobKind<{ month: string; person: string }> = {
  kind: STATEMENT_MAIL,
  does: 'Mail statements',
  argument: z.object({ month: z.string(), person: z.string() }),
  stops: false,
  once: true,
  describe: async ({ month, person }) => ({ about: `${month}, to ${person}`, page: `/allocation?month=${month}` }),
  async run({ month, person }, { services, key, about }) {
    const { db } = services.database
    if (!(await claimMail(db, month, person))) return { said: 'It was sent before, or nobody knows.', result: undefined }
    const note = (state: 'sent' | 'failed' | 'not known', said: string) => noteMail(db, { month, person }, state, said)
    let made: Awaited<ReturnType<typeof statementMailTo>>
    try {
      made = await statementMailTo(workFor(services, services.people.actingFor(person)), month, person)
      if (typeof made !== 'string') await about(`the mail to ${made.to.join(', ')} was sent`)
    } catch (error) {
      await note('failed', saidOf(error, `the statements of ${month} for ${person}`))
      throw error
    }
    if (typeof made === 'string') {
      await note('failed', made)
      return { said: made, result: undefined }
    }
    const to = made.to.join(', ')
    try {
      await sendMail({ ...made, key })
    } catch (error) {
      const isSure = error instanceof ConnectorFailed && error.sure
      const why = saidOf(error, `the mail to ${to}`)
      await note(isSure ? 'failed' : 'not known', why)
      throw isSure ? error : new NotKnown(`It is not known whether the mail to ${to} was sent: ${why}.`)
    }
    // where this cannot be noted it stays claimed: nothing is sent twice
    await note('sent', `sent to ${to}`)
    return { said: `sent to ${to}`, result: undefined }
  },
  async findOut({ month, person }, { services }) {
    const said = 'Rain Barrel ended while it was sent: nobody knows whether it was.'
    await noteMail(services.database.db, { month, person }, 'not known', said, 'sending')
    return said
  },
}
