/** What can be done to a resource from outside: how it is spoken of, and which locks are against it. */
export const deeds = {
  delete: { now: 'deleting', past: 'deleted', lock: 'deletion' },
  'snapshot and delete': { now: 'taking a snapshot of and deleting', past: 'deleted', lock: 'deletion' },
  'change class': { now: 'changing the class of', past: 'changed', lock: 'changes' },
  'change size': { now: 'changing the size of', past: 'changed', lock: 'changes' },
  schedule: { now: 'setting the hours of', past: 'given its hours', lock: 'changes' },
  tag: { now: 'tagging', past: 'tagged', lock: 'changes' },
} as const satisfies Record<string, { now: string; past: string; lock: 'changes' | 'deletion' }>

export type Deed = keyof typeof deeds
