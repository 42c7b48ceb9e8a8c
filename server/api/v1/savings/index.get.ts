import { savingsState } from '../../../engine/savings'
import { route } from '../../../http/route'

export default route(context => savingsState(context))
