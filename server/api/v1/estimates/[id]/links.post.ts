import { addDays } from '../../../../../core/time/day'
import { LONGEST_LINK_DAYS } from '../../../../../shared/contracts/estimates'
import { documentOf } from '../../../../exports/estimate/export-estimate'
import { Problem } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { makeLink } from '../../../../stores/links'

/** Makes a link that shows one version to anyone who has it. Its address is told now and never again. */
export default route(operations.estimates.makeLink, async ({ database, exporter, who, path, body }) => {
  const { version, audience, scenario, expiresOn } = body
  const today = new Date().toISOString().slice(0, 10)
  const last = addDays(today, LONGEST_LINK_DAYS)
  if (expiresOn > last)
    throw new Problem(422, 'invalid', 'The link would open for too long', `Choose a day up to ${last}: links open for two years at most.`, [
      { field: 'expiresOn', reason: `the last day is ${last}` },
    ])
  if (expiresOn < today)
    throw new Problem(422, 'invalid', 'The link would never open', 'Choose a day that is still to come.', [
      { field: 'expiresOn', reason: 'the day has passed' },
    ])
  const { id: estimateId } = path
  const document = await documentOf({ database, exporter }, estimateId, { version, audience, scenario }, who)
  const { id, secret } = await makeLink(database.db, { estimateId, version, audience, body: document, expiresOn, who })
  return { id, path: `/shared/${secret}` }
})
