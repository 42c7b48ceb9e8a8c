import type { BodyOf } from '../operations/operation'
import type { spend } from '../operations/spend'
import type { Makers, ResourceReport, ResourceView } from '../../shared/contracts/resources'
import { saveNote } from '../stores/resource-notes'
import { madeBy, makersOf } from '../stores/observed'
import { reportOf } from '../use-cases/reported'
import { mustSee, viewResource } from '../use-cases/resource-view'
import type { EngineWork } from './engine-work'

/** So many makers are told of, the ones who made most, and so much of what else each made. */
const MOST_MAKERS = 50
const MOST_MADE = 500

/** Single resources, as far as their charges are for whoever asks. */
export class Resources {
  constructor(private readonly work: EngineWork) {}

  view(id: string): Promise<ResourceView> {
    return viewResource(this.work, id)
  }

  /** Asks the connected clouds what they say of a resource now. */
  async reported(id: string): Promise<ResourceReport> {
    if (this.work.asker.bound) await mustSee(this.work, id)
    return reportOf(this.work.database.db, id)
  }

  /** Who made resources, as connections have told, and what else each of them made. */
  async makers({ ids }: BodyOf<(typeof spend)['makers']>): Promise<Makers> {
    const { db } = this.work.database
    const byMaker = new Map<string, string[]>()
    for (const { id, by } of await makersOf(db, ids)) byMaker.set(by, [...(byMaker.get(by) ?? []), id])
    const largest = [...byMaker].sort(([, a], [, b]) => b.length - a.length).slice(0, MOST_MAKERS)
    const makers = []
    for (const [by, own] of largest) {
      const asked = new Set(ids)
      makers.push({ by, ids: own, others: (await madeBy(db, by, MOST_MADE)).filter(id => !asked.has(id)) })
    }
    return { makers }
  }

  /** Keeps the note of a resource, in Markdown; an empty one takes it away. */
  async saveNote({ id, body }: BodyOf<(typeof spend)['saveResourceNote']>): Promise<{ id: string }> {
    if (this.work.asker.bound) await mustSee(this.work, id)
    await saveNote(this.work.database.db, id, body, this.work.asker.id)
    return { id }
  }
}
