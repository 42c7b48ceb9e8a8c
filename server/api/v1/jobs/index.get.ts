import { route } from '../../../http/route'

/** What runs by itself, and what runs now. */
export default route(async ({ jobs }) => ({ jobs: await jobs.views() }))
