import { hasMeter } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import { appHosting } from './app-hosting'
import { database } from './database'
import { databaseTier } from './database-tier'
import { desktopFleet } from './desktop-fleet'
import { disk } from './disk'
import { fileShare } from './file-share'
import { freeForm } from './free-form'
import { functions } from './functions'
import { gateway } from './gateway'
import { identity } from './identity'
import { internalTransfer } from './internal-transfer'
import { internetTransfer } from './internet-transfer'
import type { ComponentKind } from './kind'
import { licence } from './licence'
import { loadBalancer } from './load-balancer'
import { logs } from './logs'
import { mediaEncoding } from './media-encoding'
import { metered } from './metered'
import { objectArchive } from './object-archive'
import { objectStorage } from './object-storage'
import { recovery } from './recovery'
import { server } from './server'
import { snapshot } from './snapshot'
import { support } from './support'

/** Every kind of component, in the order in which they are offered. */
export const componentKinds: readonly ComponentKind[] = [
  server,
  disk,
  snapshot,
  objectStorage,
  objectArchive,
  fileShare,
  database,
  databaseTier,
  functions,
  appHosting,
  desktopFleet,
  internetTransfer,
  internalTransfer,
  gateway,
  loadBalancer,
  logs,
  mediaEncoding,
  identity,
  recovery,
  licence,
  support,
  metered,
  freeForm,
]

const byKind = new Map(componentKinds.map(kind => [kind.kind, kind]))

export function findKind(kind: string): ComponentKind | undefined {
  return byKind.get(kind)
}

/** Whether a card prices the kind in a region. */
export function isOffered(kind: ComponentKind, card: RateCard, region: string): boolean {
  return kind.needs.every(meter => hasMeter(card, meter, region))
}
