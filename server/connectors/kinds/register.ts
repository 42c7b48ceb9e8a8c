import { z } from 'zod'
import { measureLoad, measureName } from '../../../shared/contracts/measures'
import { lookup, lookupName } from '../../../shared/contracts/spend-settings'
import { ConnectorFailed, type ConnectorKind } from '../connector'
import { httpCaller, readJson } from '../http'

const clockReply = z.object({ now: z.string(), company: z.string() })
const lookupsReply = z.object({ lookups: z.array(z.object({ name: lookupName, lookup })) })
const measuresReply = z.object({ measures: z.array(z.object({ name: measureName })) })
/** A register's tables are made when they are asked for. */
const TABLES_TIME_OUT_MS = 60_000

/** A company's register of applications and business figures, which speaks the interface of `docs/connections.md`. */
export const register: ConnectorKind = {
  kind: 'register',
  label: 'A register of lookups and business measures',
  help: 'The address of the register, such as https://register.example.org; it is asked under /v1.',
  can: ['register'],
  whose: async ({ name, address, secret }) => (await httpCaller(name, address, secret).json(clockReply, 'GET', '/v1/clock')).company,
  connect({ name, provider, address, secret }) {
    const { call, json } = httpCaller(name, address, secret)
    /** What is wrong in a register's answer is told by its place: someone has to mend it there. */
    async function table<S extends z.ZodType>(contract: S, path: string): Promise<z.infer<S>> {
      const bytes = await call('GET', path, {}, { timeOutMs: TABLES_TIME_OUT_MS })
      const read = contract.safeParse(readJson(bytes))
      if (read.success) return read.data
      // what is no JSON at all has no place
      const [first] = read.error.issues
      throw new ConnectorFailed(
        `${name} answered something that cannot be taken: ${[first!.path.join(', '), first!.message].filter(Boolean).join(': ')}`,
        true,
      )
    }
    return {
      name,
      provider,
      now: async () => (await json(clockReply, 'GET', '/v1/clock')).now,
      can: {
        register: {
          lookups: async () => (await table(lookupsReply, '/v1/lookups')).lookups,
          measures: async () => (await table(measuresReply, '/v1/measures')).measures.map(one => one.name),
          measuredSince: (measure, day) =>
            table(measureLoad, `/v1/measures/${encodeURIComponent(measure)}?since=${encodeURIComponent(day)}`),
        },
      },
    }
  },
}
