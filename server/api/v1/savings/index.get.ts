import { savingsState } from '../../../use-cases/savings'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.savings.state, context => savingsState(context))
