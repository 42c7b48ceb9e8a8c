// Puts what `bench/spend.mts` and `bench/spend-page.mts` measured into docs/performance.md, with the growth drawn.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { questions } from './questions'

type Report = {
  rows: number
  importRowsPerSecond: number
  largestDelivery: { rows: number; rowsPerSecond: number }
  duckReadRowsPerSecond: number
  startMs: number
  memoryMb: number
  whileLoading: { median: number; p95: number; asked: number }
  questions: { name: string; cube: number; p95: number; duck: number; sql: number | null }[]
}
const folder = 'bench/results'
const reports = readdirSync(folder)
  .filter(f => /^\d+\.json$/.test(f))
  .map(f => JSON.parse(readFileSync(join(folder, f), 'utf8')) as Report)
  .sort((a, b) => a.rows - b.rows)
const page = existsSync(join(folder, 'page.json'))
  ? (JSON.parse(readFileSync(join(folder, 'page.json'), 'utf8')) as {
      charges: number
      views: { name: string; answered: number; painted: number }[]
    })
  : null
const n = (value: number) => value.toLocaleString('en-GB')

/** Milliseconds by number of charges, both scales logarithmic. */
function picture(): string {
  const [width, height, left, bottom] = [760, 380, 60, 40]
  const hues = [
    '#17695b',
    '#7d86c2',
    '#8a6a00',
    '#4f2a7d',
    '#8b9560',
    '#993a4f',
    '#3a3a00',
    '#b07a2a',
    '#2a6fb0',
    '#6b6b6b',
    '#c05a2a',
    '#2a8a4a',
  ]
  const sizes = reports.map(r => r.rows)
  const x = (rows: number) =>
    left +
    ((Math.log10(rows) - Math.log10(sizes[0]!)) / Math.max(0.01, Math.log10(sizes.at(-1)!) - Math.log10(sizes[0]!))) * (width - left - 210)
  const y = (ms: number) =>
    height - bottom - ((Math.log10(Math.max(0.5, ms)) - Math.log10(0.5)) / (Math.log10(5000) - Math.log10(0.5))) * (height - bottom - 10)
  const grid = [1, 10, 100, 1000]
    .map(
      ms =>
        `<line x1="${left}" x2="${width - 205}" y1="${y(ms)}" y2="${y(ms)}" stroke="#ddd6c6"/><text x="${left - 6}" y="${y(ms) + 4}" text-anchor="end">${n(ms)} ms</text>`,
    )
    .join('')
  const ends = questions
    .map(({ name }, i) => ({ name, i, at: y(reports.at(-1)!.questions.find(q => q.name === name)!.cube) }))
    .sort((a, b) => a.at - b.at)
  let last = -20
  const labels = ends
    .map(({ name, i, at }) => {
      last = Math.max(at, last + 13)
      return `<text x="${width - 200}" y="${last + 4}" fill="${hues[i]}">${name.length > 34 ? `${name.slice(0, 33)}…` : name}</text>`
    })
    .join('')
  const lines = questions
    .map(
      ({ name }, i) =>
        `<polyline fill="none" stroke="${hues[i]}" stroke-width="1.6" points="${reports.map(r => `${x(r.rows).toFixed(1)},${y(r.questions.find(q => q.name === name)!.cube).toFixed(1)}`).join(' ')}"/>`,
    )
    .join('')
  const ticks = sizes
    .map(
      rows =>
        `<text x="${x(rows)}" y="${height - bottom + 18}" text-anchor="middle">${n(rows)}</text><line x1="${x(rows)}" x2="${x(rows)}" y1="10" y2="${height - bottom}" stroke="#eee7d8"/>`,
    )
    .join('')
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="11" fill="#3b4a45"><rect width="${width}" height="${height}" fill="#fbf9f4"/>${ticks}${grid}${lines}${labels}<text x="${left}" y="${height - 6}">charges</text></svg>\n`
}
writeFileSync('docs/performance-growth.svg', picture())

const table = (report: Report) => `### ${n(report.rows)} charges

| question | median, ms | 95 of 100 within, ms | DuckDB, 2 threads | SQL on the embedded database |
| --- | ---: | ---: | ---: | ---: |
${report.questions.map(q => `| ${q.name} | ${q.cube} | ${q.p95} | ${q.duck} | ${q.sql ?? 'not asked'} |`).join('\n')}

Import ${n(report.importRowsPerSecond)} charges a second from file to answered question (the largest delivery, ${n(report.largestDelivery.rows)} charges loaded again: ${n(report.largestDelivery.rowsPerSecond)}); DuckDB reads the same files into a table at ${n(report.duckReadRowsPerSecond)} a second, without checks, dictionaries or a database behind. Start to the first answer ${n(report.startMs)} ms. The process takes ${n(report.memoryMb)} MB, the embedded database and all charges in memory included. While loading, the same question took ${report.whileLoading.median} ms (95 of 100 within ${report.whileLoading.p95}; ${report.whileLoading.asked} asked).
`
const said = readFileSync('bench/said.md', 'utf8')
writeFileSync(
  'docs/performance.md',
  `# Performance

Made by \`npm run bench\` and \`npx tsx bench/draw.mts\`. Times are of one machine (two cores, noisy) in one run: ratios are the point. Every answer is exact to the last digit and equal in all engines (a differential test).

![Milliseconds of twelve questions by number of charges](performance-growth.svg)

${reports.map(table).join('\n')}
${
  page
    ? `## From click to painted chart, on the demo (${n(page.charges)} charges)

| view | answered, ms | painted, ms |
| --- | ---: | ---: |
${page.views.map(v => `| ${v.name} | ${v.answered} | ${v.painted} |`).join('\n')}
`
    : ''
}
${said}`,
)
