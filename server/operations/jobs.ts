import * as contracts from '../../shared/contracts/jobs'
import { numbered } from './replies'
import { numberOf, operation } from './operation'

const jobId = numberOf('job')

export const jobs = {
  list: operation('jobs', 'get', '/jobs', 'What runs by itself, and what runs now.', { reach: 'company', reply: contracts.jobList }),
  change: operation('jobs', 'put', '/jobs/{id}', 'Changes a rhythm, pauses a job or lets it go on.', {
    reach: 'company',
    parts: { id: jobId },
    body: contracts.jobChange,
    reply: numbered,
  }),
  run: operation('jobs', 'post', '/jobs/{id}/run', 'Runs a job now.', { reach: 'company', parts: { id: jobId }, reply: numbered }),
  stop: operation('jobs', 'post', '/jobs/{id}/stop', 'Asks a job to stop.', { reach: 'company', parts: { id: jobId }, reply: numbered }),
}
