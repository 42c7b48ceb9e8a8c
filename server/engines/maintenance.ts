import { PassThrough, type Readable } from 'node:stream'
import { checkAll } from '../maintenance/check'
import { writeBackup } from '../maintenance/backup'
import { Problem } from '../problems/problem'
import type { EngineWork } from './engine-work'

/** What keeps the data: for whoever can read the data folder. */
export class Maintenance {
  constructor(private readonly work: EngineWork) {}

  /** Everything that is kept as one file, made while it is taken; it has no end where it could not be made. */
  backup(token: string | undefined): Readable {
    this.#mustMaintain(token)
    const out = new PassThrough()
    // an error destroys the stream, which ends the reply before its end
    writeBackup(this.work.database, out).catch((error: Error) => out.destroy(error))
    return out
  }

  /** Reads everything that is kept and names what is damaged. */
  check(token: string | undefined) {
    this.#mustMaintain(token)
    return checkAll(this.work.database)
  }

  /** @throws Problem for anyone who cannot read the data folder: what they would get is everything that is kept. */
  #mustMaintain(token: string | undefined): void {
    if (token !== this.work.token)
      throw new Problem(
        'forbidden',
        'not-maintainer',
        'Only whoever maintains the data folder may do this',
        'Use «npm run backup» or «npm run check» on the machine with the data folder.',
      )
  }
}
