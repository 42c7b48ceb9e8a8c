import { arrive, otherSize } from '../../../../../http/arrive'
import { conflict, notFound } from '../../../../../http/problem'
import { operations } from '../../../../../http/operations'
import { route } from '../../../../../http/route'
import { arriving, type Arriving } from '../../../../../imports/deliveries'
import type { TakenIn } from '../../../../../imports/take-in'

/** One file of an announced delivery. Answers with the load's id once all have arrived. */
export default route(operations.sources.deliverFile, async ({ event, importer, path }) => {
  const { id } = path
  const number = Number(path.number)
  const delivery = arriving.find(id)
  const announced = delivery?.files[number]
  if (!delivery || !announced) throw notFound('file of a delivery', 'Announce the delivery and its files first.')
  const taken = await arrive(event, announced.name, importer.inbox.path(delivery.load, number), announced.bytes)
  const isKept = await keep(taken, delivery, number).finally(taken.drop)
  if (!isKept) return { importId: null }
  const files = delivery.arrived.flatMap(file => file ?? [])
  if (files.length < delivery.files.length || !arriving.end(id)) return { importId: null }
  await importer.arrived(delivery.load, files)
  return { importId: String(delivery.load) }
})

/** Lets a file stand in its place, where no other does. @returns false when the same has come before. */
async function keep({ file, keep }: TakenIn, delivery: Arriving, number: number): Promise<boolean> {
  const announced = delivery.files[number]!
  if (file.bytes !== announced.bytes) throw otherSize(announced.name, announced.bytes, file.bytes)
  const before = delivery.claimed[number]
  if (before && before.sha256 !== file.sha256)
    throw conflict(
      'That part has come already',
      `Another «${announced.name}» came first and counts. To deliver yours, announce a delivery of its own.`,
    )
  if (before) return false
  delivery.claimed[number] = file
  try {
    await keep()
  } catch (error) {
    delivery.claimed[number] = null // it may be sent again
    throw error
  }
  delivery.arrived[number] = file
  return true
}
