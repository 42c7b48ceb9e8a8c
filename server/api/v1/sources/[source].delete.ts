import { parameter, route } from '../../../http/route'

/** Takes all of a source out, as a load that can be undone. */
export default route(async ({ event, importer, who }) => ({ id: await importer.takeOut(parameter(event, 'source'), who) }))
