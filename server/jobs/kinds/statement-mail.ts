import { z } from 'zod'
import { claimMail, noteMail, STATEMENT_MAIL } from '../../stores/statement-mails'
import { statementMailTo } from '../../use-cases/statement-mails'
import { workFor } from '../../use-cases/work'
import { ENDED_OVER, mailOnce } from '../mail-once'
import type { JobKind } from './kind'

/** Mails somebody their statements of a closed month. */
export const statementMail: JobKind<{ month: string; person: string }> = {
  kind: STATEMENT_MAIL,
  does: 'Mail statements',
  argument: z.object({ month: z.string(), person: z.string() }),
  stops: false,
  once: true,
  describe: async ({ month, person }) => ({ about: `${month}, to ${person}`, page: `/allocation?month=${month}` }),
  run({ month, person }, run) {
    const { services } = run
    const { db } = services.database
    const claim = () => claimMail(db, month, person)
    const make = () => statementMailTo(workFor(services, services.people.actingFor(person)), month, person)
    const note = (state: Parameters<typeof noteMail>[2], said: string) => noteMail(db, { month, person }, state, said)
    return mailOnce({ what: `the statements of ${month} for ${person}`, claim, make, note }, run)
  },
  async findOut({ month, person }, { services }) {
    await noteMail(services.database.db, { month, person }, 'not known', ENDED_OVER, 'sending')
    return ENDED_OVER
  },
}
