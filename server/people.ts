import { randomUUID } from 'node:crypto'
import type { Bound } from '../core/allocation/bound'
import type { Database } from './db/database'
import { listPeople, type StoredPerson } from './stores/people'

/** Who asks. */
export type Asker = {
  /** What is kept wherever it is kept who did something: the id of a person, or what names nobody. */
  id: string
  name: string
  /** What they see; null for all. */
  bound: Bound | null
}

/** Who did something before anyone was chosen. */
const NOBODY = 'nobody chosen'

/** Who made a document, as it says so; empty for nobody. */
export const signedBy = (who: string): string => (who === NOBODY ? '' : who)

/** The people whom one can work as, in memory: with every request it is asked who asks. */
export class People {
  #people: StoredPerson[] = []
  /** Tells this process from others on the database. */
  readonly #me = randomUUID()

  constructor(private readonly database: Database) {}

  get all(): readonly StoredPerson[] {
    return this.#people
  }

  /**
   * Who asks, as a browser says it: the id of a person, or, from before ids were kept, a name. Whoever is nobody of these sees all, until
   * there is sign-in.
   */
  asker(said: string | undefined): Asker {
    if (said === undefined || said === '') return { id: NOBODY, name: NOBODY, bound: null }
    return this.#find(said) ?? { id: said, name: said, bound: null }
  }

  /** The name of a person; what is the id of nobody stays as it is. */
  nameOf(id: string): string {
    return this.#find(id)?.name ?? id
  }

  /** Whose bound holds for what runs for someone by itself; of a person who is gone nothing is known, and nothing is for them. */
  actingFor(id: string): Asker {
    return this.#find(id) ?? { id, name: id, bound: this.#isNobody(id) ? null : { centres: [], seesPools: false } }
  }

  #find(said: string): StoredPerson | undefined {
    return this.#people.find(({ id }) => id === said) ?? this.#people.find(({ name }) => name === said)
  }

  #isNobody(id: string): boolean {
    return id === NOBODY || this.#people.length === 0
  }

  /** Takes up who is there now; with changes of this process, tells others. */
  async refresh(): Promise<void> {
    this.#people = await listPeople(this.database.db)
  }

  async changed(): Promise<void> {
    await this.refresh()
    await this.database.notify('people', this.#me)
  }

  /** From now on takes up what other processes on the database change. */
  async follow(): Promise<void> {
    await this.database.listen('people', told => {
      if (told !== this.#me) this.refresh().catch((error: unknown) => console.error('people could not be read', error))
    })
  }
}
