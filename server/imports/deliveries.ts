import type { DeliveryStart } from '../../shared/contracts/imports'
import type { ArrivedFile } from './importer'

/** A delivery of several files that has been announced and is arriving in the inbox under its load. */
export type Arriving = DeliveryStart & { load: number; arrived: (ArrivedFile | null)[] }

/** Deliveries under way in this process, by the id of their load. One that never completes is put away by the next start. */
export const arriving = new Map<string, Arriving>()
