import { Decimal } from '../../core/money/decimal'
import { scaledText } from '../../core/money/scaled'
import type { ChargesSeen } from '../charges/charges-seen'
import type { CubeFacts } from '../charges/cube/cube-facts'
import type { Done } from './deed-charges'
import { ALWAYS, PROTECTS_COLUMN } from './resource-facts'

/** A snapshot that is kept of what is gone, and its effective cost since. */
export type KeptSnapshot = { resourceId: string; name: string; amount: Decimal }

/**
 * By the id of what was deleted, the snapshots that were taken of it before, as far as its provider's charges say what each protects and
 * whoever asks may see them. In the currency of the deed alone.
 */
export async function snapshotsKept(
  charges: ChargesSeen,
  done: readonly Done[],
  { found }: Pick<CubeFacts, 'found'>,
): Promise<Map<string, KeptSnapshot[]>> {
  const kept = new Map<string, KeptSnapshot[]>()
  const gone = done.filter(({ until, body }) => !until && body.instruction?.deed === 'snapshot and delete')
  if (!gone.length || !found.includes(PROTECTS_COLUMN)) return kept
  const first = gone.map(({ doneAt }) => doneAt.slice(0, 10)).reduce((a, b) => (a < b ? a : b))
  const protecting = async (days: { start: string; end: string }) => {
    const { result } = await charges.ask('group', {
      ...{ ...ALWAYS, ...days, keep: { [PROTECTS_COLUMN]: gone.map(({ body }) => body.resourceId) }, grain: null },
      ...{ splitBy: [PROTECTS_COLUMN, 'ResourceId', 'ResourceName'], measures: ['effectiveCost'] },
    })
    return result
  }
  const [before, since] = await Promise.all([protecting({ ...ALWAYS, end: first }), protecting({ ...ALWAYS, start: first })])
  // copies that were there before are none of the deed's
  const known = new Set(before.map(({ values }) => values.ResourceId))
  for (const { values, currency, amounts } of since) {
    const of = gone.find(({ body }) => body.resourceId === values[PROTECTS_COLUMN])
    if (!of || of.currency !== currency || !values.ResourceId || known.has(values.ResourceId)) continue
    const own = {
      resourceId: values.ResourceId,
      name: values.ResourceName ?? values.ResourceId,
      amount: new Decimal(scaledText(amounts[0]!)),
    }
    kept.set(of.body.resourceId, [...(kept.get(of.body.resourceId) ?? []), own])
  }
  return kept
}
