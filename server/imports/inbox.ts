import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'

/** Where files lie from their arrival until their load has ended: a folder for each load, named by its id. */
export class Inbox {
  readonly #folder: string

  constructor(dataDir: string) {
    this.#folder = join(dataDir, 'inbox')
    mkdirSync(this.#folder, { recursive: true })
  }

  /** The folder of a load's files, made when it is not there. */
  folder(loadId: number): string {
    const folder = join(this.#folder, String(loadId))
    mkdirSync(folder, { recursive: true })
    return folder
  }

  /** The path of a load's file, by its place among them. */
  path(loadId: number, number: number): string {
    return join(this.folder(loadId), String(number))
  }

  clear(loadId: number): void {
    rmSync(join(this.#folder, String(loadId)), { recursive: true, force: true })
  }

  /** Takes away everything but the files of loads that are still to be read. */
  clearAllBut(loadIds: readonly number[]): void {
    const kept = new Set(loadIds.map(String))
    for (const name of readdirSync(this.#folder)) if (!kept.has(name)) rmSync(join(this.#folder, name), { recursive: true, force: true })
  }
}
