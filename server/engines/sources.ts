import type { Mapping } from '../../core/focus/mapping/mapping'
import type { BodyOf } from '../operations/operation'
import type { sources } from '../operations/sources'
import { notFound } from '../problems/problem'
import { previewMapping } from '../imports/mapping-preview'
import { watchableFolders } from '../imports/watched-files'
import { lookNow, startWatching, stopWatching, watched } from '../jobs/watching'
import { findMapping, listMapped, removeMapping, saveMapping } from '../stores/mappings'
import { listSources } from '../stores/sources'
import { findWatch } from '../stores/watches'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof sources> = BodyOf<(typeof sources)[Name]>

const LOADS_SHOWN = 60

/** Where charges come from: what was delivered, how files are read, what is watched. */
export class Sources {
  constructor(private readonly work: EngineWork) {}

  async list() {
    const { result } = await this.work.seen.ask('facts', undefined)
    return { sources: await listSources(this.#db, result), loads: await this.work.importer.list.recent(LOADS_SHOWN) }
  }

  /** The sources whose files are read through a mapping. */
  async mappings() {
    return { sources: await listMapped(this.#db) }
  }

  async previewMapping(asked: Body<'previewMapping'>) {
    return previewMapping(asked, asked.mapping ? null : await findMapping(this.#db, asked.source))
  }

  async mapping(source: string) {
    const mapping = await findMapping(this.#db, source)
    if (!mapping) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
    return { source, mapping }
  }

  async saveMapping(source: string, mapping: Mapping) {
    await saveMapping(this.#db, source, mapping, this.work.asker.id)
    return { source }
  }

  async removeMapping(source: string) {
    if (!(await removeMapping(this.#db, source))) throw notFound('mapping', `The files of «${source}» are read as FOCUS.`)
    return { source }
  }

  async watches() {
    return { watches: await watched(this.#db), folders: watchableFolders(this.work.dataDir) }
  }

  /** Watches a folder or a connection from now on; looks once at once. */
  async watch(asked: Body<'watch'>) {
    const watch = await startWatching(this.work, asked, this.work.asker.id)
    return { id: watch.id, said: await lookNow(this.work.jobs, watch, this.work.asker.id) }
  }

  /** Looks now instead of when it is due. */
  async lookAt(id: number) {
    const watch = await findWatch(this.#db, id)
    if (!watch) throw notFound('watch', 'It may have been deleted already.')
    return { id: watch.id, said: await lookNow(this.work.jobs, watch, this.work.asker.id) }
  }

  async unwatch(id: number) {
    if (!(await stopWatching(this.#db, id))) throw notFound('watch', 'It may have been deleted already.')
    return { id }
  }

  get #db() {
    return this.work.database.db
  }
}
