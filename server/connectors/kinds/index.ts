import type { ConnectorKind } from '../connector'
import { cloud } from './cloud'
import { publishedRateCard } from './published-rate-card'
import { register } from './register'
import { workOrders } from './work-orders'

/** Every kind of outside service that can be connected. */
export const connectorKinds: readonly ConnectorKind[] = [cloud, workOrders, publishedRateCard, register]
