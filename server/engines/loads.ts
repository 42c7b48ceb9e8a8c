import { deliver } from '../imports/deliver'
import { stated } from '../imports/delivered'
import { arriving, type Arriving } from '../imports/deliveries'
import { loadJob } from '../imports/load-row'
import { mappingFor } from '../imports/mapping-for'
import { movedBy } from '../imports/moved'
import type { TakenIn } from '../imports/take-in'
import { otherSize } from '../imports/other-size'
import type { BodyOf, QueryOf } from '../operations/operation'
import type { sources } from '../operations/sources'
import { conflict, notFound } from '../problems/problem'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof sources> = BodyOf<(typeof sources)[Name]>

/** Takes a file in beside a path. @param most bytes that may come. */
type Receive = (name: string, path: string, most?: number) => Promise<TakenIn>

/** Deliveries as they arrive, and what becomes of them. */
export class Loads {
  constructor(private readonly work: EngineWork) {}

  /** One file's bytes as a delivery of its own. */
  async importFile({ source, file, mapped, deliveredAt }: QueryOf<(typeof sources)['importFile']>, receive: Receive) {
    const mapping = await mappingFor(this.work.database.db, source, mapped)
    const name = (file ?? `${source}.csv`).slice(0, 200)
    const announced = { source, files: [{ name, bytes: 0 }], who: this.#who, mapping, ...stated(deliveredAt) }
    return { id: await deliver(this.work.importer.arrivals, announced, path => receive(name, path)) }
  }

  /** Announces files that belong together; each is then sent, and the last one starts the load. */
  async announce(delivery: Body<'announce'>) {
    const { importer } = this.work
    const { source, files, deliveredAt, isFileTime } = delivery
    const mapping = await mappingFor(this.work.database.db, source, delivery.mapped)
    const load = await importer.arrivals.announce({
      ...{ source, files, who: this.#who, mapping },
      ...stated(deliveredAt, isFileTime ? 'file' : 'stated'),
    })
    const none = () => files.map(() => null)
    arriving.begin({ ...delivery, load, claimed: none(), arrived: none() }, () => importer.arrivals.forget(load))
    return { id: String(load) }
  }

  /** One file of an announced delivery. @returns the load's id once all have arrived. */
  async deliverFile(id: string, number: number, receive: Receive) {
    const { importer } = this.work
    const delivery = arriving.find(id)
    const announced = delivery?.files[number]
    if (!delivery || !announced) throw notFound('file of a delivery', 'Announce the delivery and its files first.')
    const taken = await receive(announced.name, importer.inbox.path(delivery.load, number), announced.bytes)
    const isKept = await keep(taken, delivery, number).finally(taken.drop)
    if (!isKept) return { importId: null }
    const files = delivery.arrived.flatMap(file => file ?? [])
    if (files.length < delivery.files.length || !arriving.end(id)) return { importId: null }
    await importer.arrivals.arrived(delivery.load, files)
    return { importId: String(delivery.load) }
  }

  async status(id: string) {
    const status = await this.work.importer.list.status(id)
    if (!status) throw notFound('load', `No load has the id «${id}».`)
    return status
  }

  /** Asks a load to stop, whichever process reads it. */
  async stop(id: string) {
    const { importer, jobs } = this.work
    await this.status(id)
    const isAsked = importer.has(id) ? importer.stop(id) : await jobs.stop(loadJob(id))
    if (!isAsked) throw conflict('The load has ended', 'It was loaded, refused or stopped before; there is nothing to stop.')
    return { id }
  }

  /** Takes a load back: what was loaded before counts again. */
  async undo(id: string, { empty }: Body<'undoLoad'>) {
    await this.work.importer.steps.undo(id, this.#who, empty)
    return { id }
  }

  /** Loads again what was taken back. */
  async redo(id: string) {
    await this.work.importer.steps.redo(id, this.#who)
    return { id }
  }

  /** What counts, where a delivery meets what counts already. */
  async choose(id: string, { use }: Body<'chooseLoad'>) {
    await this.work.importer.choices.choose(id, use, this.#who)
    return { id }
  }

  /** What a restatement moved, line by line, as long as the charges before it are kept. */
  moved(id: string) {
    return movedBy(this.work, id)
  }

  /** Takes all of a source out, as a load that can be undone. */
  async takeOut(source: string) {
    return { id: await this.work.importer.steps.takeOut(source, this.#who) }
  }

  get #who() {
    return this.work.asker.id
  }
}

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
