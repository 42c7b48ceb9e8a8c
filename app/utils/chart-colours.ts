/** The colours of the theme that is on, read from the tokens: charts draw on their own and cannot use variables. */
export function chartColours() {
  const style = getComputedStyle(document.documentElement)
  const token = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    hues: Array.from({ length: 8 }, (_, i) => token(`c${i + 1}`)),
    rest: token('rest'),
    line: token('line'),
    lineStrong: token('line-strong'),
    ink: token('ink'),
    ink2: token('ink-2'),
    ink3: token('ink-3'),
    paper: token('paper'),
    sunk: token('paper-sunk'),
    raised: token('paper-raised'),
    act: token('act'),
    sans: token('sans'),
    serif: token('serif'),
  }
}

const HATCH_PX = 6
/** What has no value, as `--hatch` draws it: neutral stripes, for bars and areas alike. */
export function hatched({ sunk, ink3 }: Pick<ReturnType<typeof chartColours>, 'sunk' | 'ink3'>) {
  const tile = Object.assign(document.createElement('canvas'), { width: HATCH_PX, height: HATCH_PX })
  const pen = tile.getContext('2d')!
  pen.fillStyle = sunk
  pen.fillRect(0, 0, HATCH_PX, HATCH_PX)
  pen.strokeStyle = ink3
  pen.lineWidth = 1.2
  // beyond the edges as well, so that tiles meet
  for (const shift of [-HATCH_PX, 0, HATCH_PX]) {
    pen.moveTo(shift - 1, HATCH_PX + 1)
    pen.lineTo(shift + HATCH_PX + 1, -1)
  }
  pen.stroke()
  return { image: tile, repeat: 'repeat' as const }
}
