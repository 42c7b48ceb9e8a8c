import { randomUUID } from 'node:crypto'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { deliveryStart } from '../../../../shared/contracts/imports'
import { body, route } from '../../../http/route'
import { arriving } from '../../../imports/deliveries'

/** Announces files that belong together; each is then sent, and the last one starts the load. */
export default route(async ({ event, dataDir }) => {
  const delivery = await body(event, deliveryStart)
  const id = randomUUID()
  const folder = join(dataDir, 'inbox', id)
  mkdirSync(folder, { recursive: true })
  arriving.set(id, { ...delivery, folder, arrived: delivery.files.map(() => null) })
  return { id }
})
