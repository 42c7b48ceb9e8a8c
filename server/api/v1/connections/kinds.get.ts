import { connectorKinds } from '../../../connectors/kinds'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** The kinds of outside services that can be connected, and what each can do. */
export default route(operations.connections.kinds, () => ({
  kinds: connectorKinds.map(({ kind, label, help, can: [...can] }) => ({ kind, label, help, can: [...can] })),
}))
