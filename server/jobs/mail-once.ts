import { ConnectorFailed } from '../connectors/connector'
import { sendMail, type Mail } from '../connectors/mail'
import { saidOf } from '../problems/fault'
import { NotKnown } from '../problems/job-ends'
import type { MailState } from '../../shared/contracts/statement-mails'
import type { Done, Run } from './kinds/kind'

/** A mail that is sent at most once. */
export type OneMail = {
  /** What it brings, in words. */
  what: string
  /** Takes it on. @returns false where it was sent, is being sent, or nobody knows: then it must not be sent. */
  claim: () => Promise<boolean>
  /** Makes it; in words why there is none. */
  make: () => Promise<Omit<Mail, 'key'> | string>
  note: (state: MailState, said: string) => Promise<void>
}

/** What is said of a mail that a process was killed over. */
export const ENDED_OVER = 'Rain Barrel ended while it was sent: nobody knows whether it was.'

/**
 * Sends a mail at most once: what becomes of it is noted, and where nobody knows whether it was taken it is not sent again.
 * @throws NotKnown then. @throws ConnectorFailed where it surely was not.
 */
export async function mailOnce({ what, claim, make, note }: OneMail, { key, about }: Pick<Run, 'key' | 'about'>): Promise<Done<void>> {
  if (!(await claim())) return { said: 'It was sent before, or nobody knows.', result: undefined }
  let made: Awaited<ReturnType<OneMail['make']>>
  try {
    made = await make()
    if (typeof made !== 'string') await about(`the mail to ${made.to.join(', ')} was sent`)
  } catch (error) {
    await note('failed', saidOf(error, what))
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
}
