import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** What runs by itself, and what runs now. */
export default route(operations.jobs.list, async ({ jobs }) => ({ jobs: await jobs.views() }))
