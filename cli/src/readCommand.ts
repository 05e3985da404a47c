import { keyText, nameText, plainPitch } from '@velvet-porch/core/music'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import type { Problem } from '@velvet-porch/core/input'
import { CAPO_MEANINGS } from '@velvet-porch/core/input/song'
import { command } from './options.ts'
import { readText } from './readInput.ts'
import { understoodFrom } from './tuneFrom.ts'
import { problemText, problemWords, say } from './words.ts'

interface Values {
  readonly capoMeans: string
  readonly bars?: string
  readonly json?: boolean
}

/** `porch read`: says what a text is and what is understood of it. */
export const readCommand = command(
  'read',
  'file',
  'Says what a text is (ABC, tab, a song, MusicXML, MIDI, a tune of the app) and what is understood of it; - reads what is piped in.',
)
  .option(
    '--capo-means <what>',
    `what chord names of a song with a capo are: ${CAPO_MEANINGS.join(', ')}`,
    'shapes',
  )
  .option('--bars <number>', 'how many bars a line of a song takes, where it does not say so')
  .option('--json', 'prints one JSON object')
  .action(run)

function run(file: string, values: Values): void {
  const source = readText(file)
  const { kind, tunes } = understoodFrom(file, source.text, values)
  const understood = tunes.map(summaryOf)
  if (understood.every((t) => t.title === null)) process.exitCode = 1
  if (values.json) {
    process.stdout.write(`${JSON.stringify({ kind: kind ?? null, tunes: understood })}\n`)
    return
  }
  process.stdout.write(`${kind === undefined ? 'Nothing that is understood.' : KIND_TEXTS[kind]}\n`)
  if (source.note) process.stdout.write(`${say(source.note)}\n`)
  for (const [i, t] of understood.entries()) {
    if (t.title !== null)
      process.stdout.write(
        `\n${i + 1}. ${t.title}: ${t.measures} measures, ${t.notes} notes, ${t.chords} chords, ${t.words} words` +
          `${t.key ? `, ${t.key}` : ''}${t.tuning ? `, tuned ${t.tuning}` : ''}${t.capo ? `, capo ${t.capo}` : ''}` +
          `${t.tempo === null ? '' : `, ♩ = ${t.tempo}`}\n`,
      )
    for (const p of tunes[i]!.problems) process.stdout.write(`   ${problemText(p)}\n`)
  }
}

const KIND_TEXTS = {
  abc: 'A text in ABC.',
  tab: 'A text tab.',
  song: 'A song: words with chords.',
  musicxml: 'A score in MusicXML.',
  midi: 'A MIDI file.',
  json: 'A tune that was saved here.',
} as const

/** What the object says of one tune; null for what the text does not say. */
function summaryOf({ tune, arrangement, song, problems }: TuneUnderstood) {
  const setup = arrangement?.setup
  const tempo = tune?.tempos[0]
  const sung = tune?.events.filter((e) => e.lyric !== undefined && e.lyric !== '').length ?? 0
  const lines = tune?.song?.lines.filter((l) => l.kind === 'sung') ?? []
  const worded = lines.reduce((n, l) => n + (l.text.match(/[\p{L}\d][\p{L}\d'’-]*/gu)?.length ?? 0), 0)
  return {
    title: tune?.title ?? null,
    measures: tune?.measures.length ?? 0,
    notes: arrangement ? arrangement.base.notes.length : (tune?.events.filter((e) => e.pitch).length ?? 0),
    chords: tune?.chords.length ?? 0,
    words: sung + worded,
    tuning: setup
      ? setup.tuning
          .toReversed()
          .map((m) => nameText(plainPitch(m, false)))
          .join(' ')
      : (song?.tuning ?? null),
    capo: setup?.capo[0] ?? song?.capo ?? 0,
    key: tune ? keyText(tune.measures[0]!.key) : null,
    tempo: tempo?.stated ? tempo.bpm : null,
    problems: problems.map(problemOf),
  }
}

const problemOf = (problem: Problem) => {
  const { what, taken } = problemWords(problem)
  return { line: problem.line, code: problem.says.code, text: `${what} — ${taken}` }
}
