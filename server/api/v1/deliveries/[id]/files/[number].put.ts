import { rmSync } from 'node:fs'
import { arrive } from '../../../../../http/arrive'
import { notFound, Problem } from '../../../../../http/problem'
import { parameter, route } from '../../../../../http/route'
import { arriving } from '../../../../../imports/deliveries'

/** One file of an announced delivery. Answers with the load's id once all have arrived. */
export default route(async ({ event, importer }) => {
  const id = parameter(event, 'id')
  const number = Number(parameter(event, 'number'))
  const delivery = arriving.get(id)
  const announced = delivery?.files[number]
  if (!delivery || !announced) throw notFound('file of a delivery', 'Announce the delivery and its files first.')
  const path = importer.inbox.path(delivery.load, number)
  const file = await arrive(event, announced.name, path)
  if (file.bytes !== announced.bytes) {
    rmSync(path, { force: true })
    throw new Problem(
      422,
      'other-size',
      'The file is not what was announced',
      `«${announced.name}» was announced with ${announced.bytes} bytes, and ${file.bytes} came. Announce the delivery again if the file has changed, else send it again.`,
    )
  }
  delivery.arrived[number] = file
  const files = delivery.arrived.flatMap(file => file ?? [])
  if (files.length < delivery.files.length || !arriving.delete(id)) return { importId: null }
  await importer.arrived(delivery.load, files)
  return { importId: String(delivery.load) }
})
