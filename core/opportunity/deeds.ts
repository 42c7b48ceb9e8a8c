/**
 * What can be done to a resource from outside; connectors say what they can do to which type. How it is spoken of, and which locks are
 * against it.
 */
export const deeds = { delete: { now: 'deleting', past: 'deleted', lock: 'deletion' } } as const satisfies Record<
  string,
  { now: string; past: string; lock: 'changes' | 'deletion' }
>

export type Deed = keyof typeof deeds
