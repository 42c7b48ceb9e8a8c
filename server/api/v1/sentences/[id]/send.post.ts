import { withConnector } from '../../../../connectors/connect'
import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { mail } from '../../../../jobs/kinds/mail'
import { findJob } from '../../../../stores/jobs'
import { findSentence, mailJob } from '../../../../stores/sentences'

/** Sends a saved sentence's file now instead of when it is due. */
export default route(operations.sentences.send, async ({ database, jobs, who, path }) => {
  const { id } = path
  const sentence = await findSentence(database.db, id)
  if (!sentence || (!sentence.shared && sentence.owner !== who)) throw notFound('saved sentence', 'It may have been taken out already.')
  if (!(await findJob(database.db, mailJob(id)))) return { said: 'The sentence is sent to nobody: name someone under its schedule.' }
  const { said } = await withConnector(() => jobs.runNow(mail, mailJob(id), who))
  return { said }
})
