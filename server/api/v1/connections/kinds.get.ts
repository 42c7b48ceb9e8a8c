import { connectorKinds } from '../../../connectors/kinds'
import { route } from '../../../http/route'

/** The kinds of outside services that can be connected, and what each can do. */
export default route(() => ({ kinds: connectorKinds.map(({ kind, label, help, can }) => ({ kind, label, help, can })) }))
