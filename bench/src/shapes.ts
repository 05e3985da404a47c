import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { fileURLToPath } from 'node:url'
import type { SetPosition } from './chordSet/chordSet.ts'
import { fingeringReport, rankingReport, timingReport } from './chordSet/figures.ts'

/** `npm run bench:shapes`: every figure of the shape finder against the open chord data set, into docs/shapes.md. */
const timing = timingReport()
const fingering = fingeringReport()
const ranking = rankingReport()

const percent = (x: number, digits = 1) => `${(x * 100).toFixed(digits)} %`
const rows: [string, string, string, boolean][] = []
const atLeast = (name: string, value: number, aim: number, digits = 1) =>
  rows.push([name, percent(value, digits), `≥ ${percent(aim, aim > 0.99 ? 1 : 0)}`, value >= aim])
const atMost = (name: string, ms: number, aim: number) =>
  rows.push([name, `${ms.toFixed(1)} ms`, `≤ ${aim} ms`, ms <= aim])

atLeast('recall by sounding notes', ranking.bySound.recall, 0.999, 2)
atLeast('recall by chord name', ranking.byName, 0.98)
atLeast('positions within the first 40 folded rows', ranking.shownByRow, 0.8)
atLeast('first choices, 36 common chords, in our first row', ranking.both.common.firstRow, 0.75, 0)
atLeast('… in our first three rows', ranking.both.common.firstThreeRows, 0.92, 0)
atLeast('first choices, all chords, in our first row', ranking.both.all.firstRow, 0.48, 0)
atLeast('… in our first three rows', ranking.both.all.firstThreeRows, 0.74, 0)
atLeast('fingers exact, held-out half', fingering.heldOut.exact, 0.87)
atLeast('fingers in our first two, held-out half', fingering.heldOut.firstTwo, 0.95)
atLeast('fingers by note, held-out half', fingering.heldOut.byNote, 0.95)
atMost(`median a chord, ${timing.chords} chords, frets 0–15, cold`, timing.median, 5)
atMost('95th percentile a chord', timing.p95, 25)
atMost('path through 12 chords', timing.path, 100)

const table = [
  '| what | measured | aim | |',
  '|---|---|---|---|',
  ...rows.map(([name, value, aim, met]) => `| ${name} | ${value} | ${aim} | ${met ? 'met' : 'missed'} |`),
].join('\n')

const frets = (p: SetPosition) =>
  [...p.frets]
    .reverse()
    .map((f) => f ?? 'x')
    .join('-')
const halves = (['fitted', 'heldOut'] as const).map((half) => {
  const f = fingering[half]
  const r = ranking[half]
  return `| ${half === 'fitted' ? 'fitting half' : 'held-out half'} | ${f.positions} | ${percent(f.exact)} | ${percent(f.firstTwo)} | ${percent(f.byNote)} | ${percent(r.common.firstRow, 0)} / ${percent(r.common.firstThreeRows, 0)} (${r.common.chords}) | ${percent(r.all.firstRow, 0)} / ${percent(r.all.firstThreeRows, 0)} (${r.all.chords}) |`
})

const text = `# The shape finder, measured

Written by \`npm run bench:shapes\` on ${new Date().toISOString().slice(0, 10)}: ${cpus().length} cores, ${cpus()[0]?.model ?? 'unknown processor'}, Node ${process.version}, one thread.

The measure is the open data set \`@tombatossals/chords-db\` 0.5.1 (MIT): ${ranking.sound + ranking.excluded.length} hand-made positions of 529 chords. It is audited first; ${ranking.sound} positions are used for recall and ranking, ${ranking.excluded.length} are excluded (below). ${fingering.senseless} have fingers that cross, stand on two frets or are missing; they are left out where fingers are compared.

${table}

"Row" counts a position that is the head of a row or one of the near-variants folded into it. By the heads alone: ${percent(ranking.shownByHead, 0)} of all positions within the first 40; first choices of the common chords ${percent(ranking.both.common.firstHead, 0)} / ${percent(ranking.both.common.firstThreeHeads, 0)} in the first / first three, of all ${percent(ranking.both.all.firstHead, 0)} / ${percent(ranking.both.all.firstThreeHeads, 0)}. Rows are counted in the order in which they are shown, zone by zone.

## Both halves

The prices are fitted on one half (\`npm run fit:fingering\`, then \`npm run fit:ranking\`; bench/src/chordSet). The split is by transposed shape: a shape and the same shape moved along the neck are always in the same half. Shapes are sorted by how often they occur and dealt in pairs by a seeded coin.

| | positions | fingers exact | first two | by note | common chords, first / first three rows | all chords |
|---|---|---|---|---|---|---|
${halves.join('\n')}

Not found by sounding notes: ${ranking.bySound.missed.map((p) => `${p.key} ${p.suffix} ${frets(p)}`).join(', ') || 'none'}. Held by fingers that our hand rules forbid: ${fingering.impossible.map((p) => `${p.key} ${p.suffix} ${frets(p)}`).join(', ') || 'none'}.

## Excluded positions

${ranking.excluded.map(({ position, reason }) => `- ${position.key} ${position.suffix}, ${frets(position)}: ${reason}`).join('\n')}
`
process.stdout.write(`${table}\n`)
writeFileSync(fileURLToPath(new URL('../../docs/shapes.md', import.meta.url)), text)
if (rows.some(([, , , met]) => !met)) process.exitCode = 1
