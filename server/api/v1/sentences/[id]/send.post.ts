import { withConnector } from '../../../../connectors/ask'
import { notFound } from '../../../../http/problem'
import { parameter, route } from '../../../../http/route'
import { deliver } from '../../../../jobs/send-sentences'
import { findSentence } from '../../../../stores/sentences'

/** Sends a saved sentence's file now instead of when it is due. */
export default route(async services => {
  const sentence = await findSentence(services.database.db, parameter(services.event, 'id'))
  if (!sentence || (!sentence.shared && sentence.owner !== services.who))
    throw notFound('saved sentence', 'It may have been taken out already.')
  return { said: await withConnector(() => deliver(services, sentence)) }
})
