import { z } from 'zod'
import { carryOut, findOut } from '../../use-cases/act'
import { patiently } from '../../use-cases/patiently'
import { takeBack } from '../../stores/savings'
import { saidOf } from '../../problems/fault'
import { JobStopped } from '../../problems/job-ends'
import { factsFrom } from './act'
import type { JobKind, Run } from './kind'

/**
 * Acts on approved opportunities, one after the other: each try looks anew whether it still holds, and one that fails does not keep the
 * others back. Where it is stopped, what was not begun is taken back; where a process ends over it, what was under way is found out, and
 * the rest waits for a person.
 */
export const actBatch: JobKind<{ ids: string[]; who: string }> = {
  kind: 'act-batch',
  does: 'Act on savings',
  argument: z.object({ ids: z.array(z.string()), who: z.string() }),
  stops: true,
  once: true,
  describe: async ({ ids }) => ({ about: `${ids.length} opportunities`, page: '/savings' }),
  async run({ ids, who }, run) {
    const { services, signal, progress } = run
    let [done, failed] = [0, 0]
    for (const [at, id] of ids.entries()) {
      if (signal.aborted) break
      progress({ done: at, of: ids.length, unit: 'opportunities', words: `${done} done, ${failed} not` })
      if (await isDone(id, who, run)) done++
      else failed++
    }
    // what ends with the process, or is another's now, is not taken back
    if (signal.aborted && !(signal.reason instanceof JobStopped)) throw signal.reason
    const left = await takeBack(services.database.db, ids, who)
    return { said: `${done} done, ${failed} not done${left ? `, ${left} not begun` : ''}`, result: undefined }
  },
  async findOut({ ids, who }, { services }) {
    for (const id of ids) await findOut(factsFrom(services), id, who).catch((error: unknown) => saidOf(error, `finding out about ${id}`)) // it stands in its steps
    return 'found out; what was not begun waits for somebody'
  },
}

/** Carries out one; what becomes of it stands in its steps. */
async function isDone(id: string, who: string, { services, signal, about }: Run): Promise<boolean> {
  try {
    await patiently(() => carryOut(factsFrom(services), id, who, about), signal)
    return true
  } catch (error) {
    saidOf(error, `acting on ${id}`) // a fault is logged
    return false
  }
}
