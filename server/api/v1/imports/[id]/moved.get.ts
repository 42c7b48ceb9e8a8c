import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { movedBy } from '../../../../imports/moved'

/** What a restatement moved, line by line, as long as the charges before it are kept. */
export default route(operations.sources.movedLines, services => movedBy(services, String(services.path.id)))
