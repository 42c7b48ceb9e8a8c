import { numberedParameter, route } from '../../../../http/route'
import { movedBy } from '../../../../imports/moved'

/** What a restatement moved, line by line, as long as the charges before it are kept. */
export default route(services => movedBy(services, String(numberedParameter(services.event, 'id', 'load'))))
