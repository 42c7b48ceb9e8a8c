import { z } from 'zod'
import { claimListMail, noteListMail, SAVINGS_LIST_MAIL } from '../../stores/savings-lists'
import { savingsListMail as mailOf } from '../../use-cases/savings-lists'
import { ENDED_OVER, mailOnce } from '../mail-once'
import type { JobKind } from './kind'

/** Mails an owner their list of savings. */
export const savingsListMail: JobKind<{ list: string }> = {
  kind: SAVINGS_LIST_MAIL,
  does: 'Mail a list of savings',
  argument: z.object({ list: z.string() }),
  stops: false,
  once: true,
  describe: async ({ list }) => ({ about: list, page: '/savings' }),
  run({ list }, run) {
    const { db } = run.services.database
    const note = (state: Parameters<typeof noteListMail>[2], said: string) => noteListMail(db, list, state, said)
    const make = () => mailOf(run.services, list)
    return mailOnce({ what: `the list of savings ${list}`, claim: () => claimListMail(db, list), make, note }, run)
  },
  async findOut({ list }, { services }) {
    await noteListMail(services.database.db, list, 'not known', ENDED_OVER, 'sending')
    return ENDED_OVER
  },
}
