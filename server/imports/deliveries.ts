import type { DeliveryStart } from '../../shared/contracts/imports'
import type { ArrivedFile } from './importer'

/** A delivery of several files that has been announced and is arriving. */
export type Arriving = DeliveryStart & { folder: string; arrived: (ArrivedFile | null)[] }

/** Deliveries under way, by id. One that never completes is forgotten with the process, and its files with the inbox. */
export const arriving = new Map<string, Arriving>()
