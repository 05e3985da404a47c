import { writeFileSync } from 'node:fs'
import { LEVELS, SOLO_STYLES, type Level, type SoloStyle } from '@velvet-porch/core/document'
import { newMemory, wholeTune } from '@velvet-porch/core/arrange'
import { allConditions, pairwise, SCHOOLS, setupFor } from './conditions.ts'
import { added, arrangeFor, countsOf, NOTHING, type Counts } from './measure.ts'
import { fitRanks } from './fitRanks.ts'
import { ladders, otherConditions, type OtherCounts } from './others.ts'
import { corpusTunes } from './tunes.ts'

/** Tunes for which every choice of tuning, key and capo is arranged. */
const FITTED = 12

/** Keys in which a missing root is a fault of ours, with the chords' own shapes at hand. */
const SENSIBLE = /^(C|G|D|A|E) major$|^(A|E|D) minor$/

const tunes = corpusTunes()
const total = new Map<string, Counts>()
const count = (key: string, counts: Counts) => total.set(key, added(total.get(key) ?? NOTHING, counts))
const notes = new Map<string, number>()
let rising = 0
let fewer = 0
const started = Date.now()
const log = (text: string) => process.stderr.write(`${text}\n`)

const conditions = allConditions()
const memories = new Map<string, ReturnType<typeof newMemory>>()
conditions.forEach((condition, i) => {
  const setup = setupFor(condition)
  const place = `${condition.instrument} ${condition.tuning}`
  const memory = memories.get(place) ?? newMemory()
  memories.set(place, memory)
  tunes.forEach((tune, n) => {
    const made = arrangeFor(tune, setup, wholeTune(tune, condition.style, condition.level), memory)
    const counts = countsOf(setup, made)
    count(`${condition.style} ${condition.level}`, counts)
    count(place, counts)
    count('all', counts)
    const key = `${tune.measures[0]!.key.tonic.step} ${tune.measures[0]!.key.mode}`
    if (SENSIBLE.test(key) && condition.tuning === 'standard' && condition.instrument === 'guitar') {
      count('sensible keys', counts)
      if (condition.level === 1) count('sensible keys, level 1', counts)
    }
    const at = `${n} ${condition.style} ${place}`
    const before = notes.get(at)
    if (before !== undefined) {
      rising++
      if (counts.notes < before) {
        fewer++
        log(
          `fewer notes: ${tune.title}, ${condition.style} ${condition.level}, ${place}: ${before} → ${counts.notes}`,
        )
      }
    }
    notes.set(at, counts.notes)
    if (counts.structural > 0) log(`structural: ${tune.title}, ${JSON.stringify(condition)}`)
    if (counts.lessonsWrong > 0) log(`lesson: ${tune.title}, ${JSON.stringify(condition)}`)
  })
  if (i % 10 === 9)
    log(`${i + 1} of ${conditions.length} conditions, ${Math.round((Date.now() - started) / 1000)} s`)
  memory.sets.clear()
})
const sample = pairwise()
sample.forEach((condition, i) => {
  const setup = setupFor(condition, condition.hand)
  for (let k = 0; k < 3; k++) {
    const tune = tunes[(i * 3 + k) % tunes.length]!
    const made = arrangeFor(
      tune,
      setup,
      wholeTune(tune, condition.style, condition.level, SCHOOLS[condition.school]),
    )
    const counts = countsOf(setup, made)
    count(`school: ${condition.school}`, counts)
    count(`hand: ${condition.hand}`, counts)
    count('schools and hands', counts)
    if (condition.school === 'flat pick, alternating' || condition.style === 'flatpicked-lead')
      count(
        condition.school === 'flat pick, alternating' ? 'alternating strokes' : 'strokes by the beat',
        counts,
      )
    if (counts.structural > 0) log(`structural: ${tune.title}, ${JSON.stringify(condition)}`)
    if (counts.lessonsWrong > 0) log(`lesson: ${tune.title}, ${JSON.stringify(condition)}`)
  }
})

const others = otherConditions(tunes)
log(`accompaniments, bottleneck, ornaments: ${Math.round((Date.now() - started) / 1000)} s`)
const climbed = ladders(tunes)
const fitted = fitRanks(tunes.filter((_, i) => i % 5 === 0).slice(0, FITTED))

writeFileSync(new URL('../../../docs/corpus.md', import.meta.url), page())
log(`docs/corpus.md written after ${Math.round((Date.now() - started) / 1000)} s`)

function page(): string {
  const all = total.get('all')!
  const sensible = total.get('sensible keys')!
  const first = total.get('sensible keys, level 1')!
  const cross = sumOf((c) => c.style === 'cross-string' && c.level >= 3)
  const lessonsWrong =
    all.lessonsWrong +
    (total.get('schools and hands')?.lessonsWrong ?? 0) +
    [...others.values()].reduce((sum, o) => sum + o.lessonsWrong, 0)
  const share = (a: number, b: number) => (b === 0 ? '—' : `${((100 * a) / b).toFixed(1)} %`)
  const rows = (keys: readonly string[]) => keys.flatMap((k) => (total.has(k) ? [row(k, total.get(k)!)] : []))
  return `# The corpus

Written by \`npm run corpus\` (${new Date().toISOString().slice(0, 10)}): ${tunes.length} tunes (${tunes.length - 48} traditional, from memory, and 48 generated) through
every style and level in four guitar tunings and on the mandolin, ${all.arrangements} arrangements; and a pairwise sample of
${sample.length} combinations of schools, hands, capos, tunings, styles and levels, three tunes each. Everything is counted from the
finished page by code that knows nothing of the solver (\`bench/src/corpus/measure.ts\`, \`core/src/audit\`).

| what is checked | wanted | found |
|---|---|---|
| structural faults | 0 | ${all.structural + (total.get('schools and hands')?.structural ?? 0)} |
| melody notes with their pitch, onset and duration | all | ${all.melodyKept} of ${all.melodyNotes} |
| root at harmony changes, sensible keys, standard tuning | ≥ 99 % | ${share(sensible.roots, sensible.harmonyChanges)} |
| missing roots that no hand could have had (exhaustive search) | all | ${sensible.rootsImpossible} of ${sensible.harmonyChanges - sensible.roots} |
| the book's fingers at chord changes, level 1, the same keys | ≥ 80 % | ${share(first.textbookFingers, first.textbookChanges)} |
| melody steps that cross to another string and ring on, cross-string, levels 3 to 5 (all steps are counted, not crossings alone) | ≥ 95 % | ${share(cross.crossingsRinging, cross.crossings)} |
| strokes that do not turn under strict alternation | 0 | ${total.get('alternating strokes')?.strokesRepeated ?? 0} of ${total.get('alternating strokes')?.strokes ?? 0} |
| jumps of one finger under 0.15 s | 0 | ${all.hops} |
| repeated measures that are not played alike | 0 | ${all.repeatedUnlike} of ${all.repeatedMeasures} |
| lessons from whose words alone the tab cannot be had again (four languages in turn) | 0 | ${lessonsWrong} |
| higher levels with fewer notes | 0 | ${fewer} of ${rising} |

| | arrangements | faults | roots | ringing | notes a tune | ms a tune |
|---|---|---|---|---|---|---|
${rows(SOLO_STYLES.flatMap((s) => LEVELS.map((l) => `${s} ${l}`))).join('\n')}
${rows(['guitar standard', 'guitar drop D', 'guitar D A D G A D', 'guitar open D', 'mandolin standard']).join('\n')}
${rows([...total.keys()].filter((k) => k.startsWith('school: ') || k.startsWith('hand: '))).join('\n')}

## Accompaniments, bottleneck, ornaments

The same tunes accompanied (guitar in standard tuning and open D, mandolin), with a bottleneck (open D and open G), and in every
solo style at level 3 at each density of ornaments. *Faults* are structural ones, broken preconditions of arrivals among them.

| | arrangements | faults | melody kept | roots | jumps under 0.15 s | arrivals | short notes | bends |
|---|---|---|---|---|---|---|---|---|
${[...others].map(([name, c]) => otherRow(name, c)).join('\n')}

Easier versions: ${climbed.ladders} ladders (styles in turn, level 4, slurred) hold ${climbed.easier} easier versions; ${climbed.easierKept} of them lower the effort and
keep every melody note, ${climbed.sameNotes} keep every note.

## Fit

${fitted.tunes} tunes (alternating bass, level 3) in three tunings, twelve keys and six capos: ${fitted.choices} choices arranged in full. The sweep, which
estimates all of them and works out the best of the estimates, has the same first five in the same order in ${fitted.same} of ${fitted.tunes}.
`
  function otherRow(name: string, c: OtherCounts): string {
    const kept = c.melodyNotes === 0 ? 'sung' : `${c.melodyKept} of ${c.melodyNotes}`
    return `| ${name} | ${c.arrangements} | ${c.structural} | ${kept} | ${share(c.roots, c.harmonyChanges)} | ${c.hops} | ${c.arrivals} | ${c.graces} | ${c.bends} |`
  }
  function row(name: string, c: Counts): string {
    return `| ${name} | ${c.arrangements} | ${c.structural} | ${share(c.roots, c.harmonyChanges)} | ${share(c.crossingsRinging, c.crossings)} | ${(c.notes / c.arrangements).toFixed(0)} | ${(c.ms / c.arrangements).toFixed(0)} |`
  }
}

function sumOf(takes: (c: { style: SoloStyle; level: Level }) => boolean): Counts {
  let sum = NOTHING
  for (const style of SOLO_STYLES)
    for (const level of LEVELS) {
      const own = total.get(`${style} ${level}`)
      if (own && takes({ style, level })) sum = added(sum, own)
    }
  return sum
}
