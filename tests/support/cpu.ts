import { readFileSync, readdirSync } from 'node:fs'

/** Milliseconds of a processor that a thread or process has used so far, from the fields utime and stime of Linux's `stat` (proc(5)). */
function usedBy(stat: string): number {
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
  return (Number(fields[11]) + Number(fields[12])) * 10 // of 100 ticks a second
}

/** What the main thread of a process, and it with all its threads and child processes, have used so far. */
export function cpuOf(pid: number): { main: number; all: number } {
  const own = usedBy(readFileSync(`/proc/${pid}/stat`, 'utf8'))
  const children = readdirSync('/proc').flatMap(name => {
    if (!/^\d+$/.test(name)) return []
    try {
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8')
      return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]) === pid ? [usedBy(stat)] : []
    } catch {
      return [] // it has ended meanwhile
    }
  })
  return { main: usedBy(readFileSync(`/proc/${pid}/task/${pid}/stat`, 'utf8')), all: children.reduce((a, b) => a + b, own) }
}
