import { shallowRef, type ShallowRef } from 'vue'

/** Undo without limit of something that is never changed in place. @param changed is told whenever it has become something else. */
export function undoable<T extends object>(now: ShallowRef<T | null>, changed: (now: T) => void) {
  const past = shallowRef<T[]>([])
  const future = shallowRef<T[]>([])
  function become(next: T) {
    now.value = next
    changed(next)
  }
  return {
    past,
    future,
    /** An edit that gives back what it was given is no step. */
    change(edit: (before: T) => T) {
      const before = now.value
      if (!before) return
      const next = edit(before)
      if (next === before) return
      past.value = [...past.value, before]
      future.value = []
      become(next)
    },
    undo() {
      const before = past.value.at(-1)
      if (!before || !now.value) return
      future.value = [...future.value, now.value]
      past.value = past.value.slice(0, -1)
      become(before)
    },
    redo() {
      const next = future.value.at(-1)
      if (!next || !now.value) return
      past.value = [...past.value, now.value]
      future.value = future.value.slice(0, -1)
      become(next)
    },
    forget() {
      past.value = []
      future.value = []
    },
  }
}
