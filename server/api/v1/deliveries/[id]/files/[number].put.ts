import { arrive } from '../../../../../http/arrive'
import { notFound } from '../../../../../http/problem'
import { parameter, route } from '../../../../../http/route'
import { arriving } from '../../../../../imports/deliveries'

/** One file of an announced delivery. Answers with the load's id once all have arrived. */
export default route(async ({ event, importer }) => {
  const id = parameter(event, 'id')
  const number = Number(parameter(event, 'number'))
  const delivery = arriving.get(id)
  const announced = delivery?.files[number]
  if (!delivery || !announced) throw notFound('file of a delivery', 'Announce the delivery and its files first.')
  delivery.arrived[number] = await arrive(event, announced.name, importer.inbox.path(delivery.load, number))
  const files = delivery.arrived.flatMap(file => file ?? [])
  if (files.length < delivery.files.length || !arriving.delete(id)) return { importId: null }
  await importer.arrived(delivery.load, files)
  return { importId: String(delivery.load) }
})
