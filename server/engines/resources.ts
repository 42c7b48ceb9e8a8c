import type { BodyOf } from '../operations/operation'
import type { spend } from '../operations/spend'
import type { ResourceReport, ResourceView } from '../../shared/contracts/resources'
import { saveNote } from '../stores/resource-notes'
import { reportOf } from '../use-cases/reported'
import { mustSee, viewResource } from '../use-cases/resource-view'
import type { EngineWork } from './engine-work'

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

  /** Keeps the note of a resource, in Markdown; an empty one takes it away. */
  async saveNote({ id, body }: BodyOf<(typeof spend)['saveResourceNote']>): Promise<{ id: string }> {
    if (this.work.asker.bound) await mustSee(this.work, id)
    await saveNote(this.work.database.db, id, body, this.work.asker.id)
    return { id }
  }
}
