import { chordText, keyText, pitchText, plainPitch, transposeKey } from '@velvet-porch/core/music'
import { highestCapo, tuningId, type Setup } from '@velvet-porch/core/instrument'
import { measureNumbers } from '@velvet-porch/core/document'
import {
  ALL_SHIFTS,
  bestTradeOffs,
  gapOf,
  HIGHEST_CAPO,
  narrowVoice,
  partnerParts,
  PARTNERS,
  ranked,
  readRange,
  sweep,
  USUAL_PREFERENCES,
  type FitOption,
  type FitQuestion,
  type PartnerPart,
  type VoiceRange,
} from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { askedFrom } from './askedFrom.ts'
import { command, withArrangeOptions, type ArrangeValues } from './options.ts'
import { tuningFrom } from './setupFrom.ts'
import { tuneFrom } from './tuneFrom.ts'
import { oneOf, semitones, UsageError } from './usage.ts'

/** Options that are printed. */
const SHOWN = 10

interface Values extends ArrangeValues {
  readonly voice?: string
  readonly tunings?: string
  readonly capos: string
  readonly keys: string
  readonly wanted: string
  readonly partners?: string
  readonly json?: boolean
}

/** `porch fit`: tuning, key and capo chosen together, the best first, with what each costs. */
export const fitCommand = withArrangeOptions(
  command('fit', 'file.abc', 'Chooses tuning, key and capo together, the best first, with what each costs.'),
  '3',
)
  .option('--voice <range>', 'who sings along, as A3-D5')
  .option('--tunings <list>', 'which tunings may be used, with commas between them')
  .option('--capos <frets>', 'where the capo may lie, as 3 or 0-7', `0-${HIGHEST_CAPO}`)
  .option('--keys <keys>', 'any, own, or semitones with commas between them', 'any')
  .option('--wanted <semitones>', 'the key that is wanted, from its own', '0')
  .option('--partners <list>', `who plays along: ${PARTNERS.join(', ')}`)
  .option('--json', 'prints one JSON object')
  .action(run)

function run(file: string, values: Values): void {
  const found = tuneFrom(file, values)
  const { tune } = found
  const { style, setup, regions } = askedFrom(values, found)
  const { kind } = setup.instrument
  const names = values.tunings ?? (kind === 'guitar' ? 'standard,dropD,dadgad' : 'standard')
  const voice = values.voice === undefined ? undefined : voiceFrom(values.voice)
  const question: FitQuestion = {
    tune,
    regions: regions(tune),
    setup,
    tunings: names
      .split(',')
      .filter((n) => n.trim())
      .map((n) => tuningFrom(kind, n.trim())),
    shifts: shiftsFrom(values.keys),
    capos: caposFrom(values.capos, highestCapo(kind)),
    wanted: semitones(values.wanted, 'wanted'),
    ...(voice ? { voice } : {}),
  }
  const gap = gapOf(question)
  if (gap) throw new UsageError(`Nothing is left to choose from: allow more ${gap}.`)
  const { estimates, worked } = finish(sweep(question, USUAL_PREFERENCES))
  if (worked.length === 0)
    throw new UsageError(`${file}: no choice of tuning, key, capo and octave lets ${style} play this melody.`)
  const options = ranked(
    worked.map((w) => w.option),
    USUAL_PREFERENCES,
  )
  const best = new Set(bestTradeOffs(options, USUAL_PREFERENCES))
  const narrow = voice && narrowVoice(tune, voice)
  const partners = (values.partners?.split(',') ?? []).map((p) => oneOf(p.trim(), PARTNERS, 'partner'))
  const first = options[0]!
  const parts = partners.length > 0 ? partnerParts(tune, first.transposed, first.choice.capo, partners) : []
  if (values.json) {
    const all = [...options, ...estimates.filter((e) => !options.some((o) => o.id === e.id))]
    const list = all.map((o) => ({ ...o, tradeOff: best.has(o) }))
    process.stdout.write(
      `${JSON.stringify({ options: list, ...(narrow ? { narrowVoice: narrow } : {}), parts })}\n`,
    )
    return
  }
  const numbers = measureNumbers(tune.measures)
  const key = tune.measures[0]!.key
  if (narrow)
    process.stdout.write(
      `The melody is ${narrow.missing} semitones wider than this voice; ${signText(narrow.nearest.shift)} semitones leave the fewest notes outside: ${narrow.nearest.outside}.\n`,
    )
  for (const o of options.slice(0, SHOWN))
    process.stdout.write(
      `${best.has(o) ? '*' : ' '} ${tuningText(setup, o).padEnd(10)} capo ${o.choice.capo}  sounds ${keyText(transposeKey(key, o.transposed))}, shapes in ${keyText(transposeKey(key, o.transposed - o.choice.capo))}: ${figuresText(o, numbers)}\n`,
    )
  process.stdout.write(
    `* best trade-offs. ${worked.length} of ${estimates.length} choices were arranged in full, the rest estimated.\n`,
  )
  for (const part of parts) process.stdout.write(`${partText(part, numbers)}\n`)
}

function tuningText({ instrument }: Setup, { choice }: FitOption): string {
  return tuningId(instrument.kind, choice.tuning) ?? choice.tuning.join(' ')
}

function figuresText(o: FitOption, numbers: readonly number[]): string {
  const { figures: f } = o
  const parts = [
    `effort ${f.effort.toFixed(1)} (${f.hardest.effort.toFixed(1)} in ${numbers[f.hardest.measure]})`,
    `stretch ${f.stretch.mm} mm in ${numbers[f.stretch.measure]}`,
    `${f.barres} barres`,
    `open roots ${f.openRoots} of ${f.changes}`,
    `${signText(o.choice.shift)} semitones`,
    ...(o.choice.octave ? [`${signText(o.choice.octave)} octave`] : []),
    ...(o.retuned.length > 0 ? [`${o.retuned.length} strings retuned`] : []),
    ...(o.choice.capo > HIGHEST_CAPO ? ['capo past the seventh fret'] : []),
    ...(o.sung
      ? [
          `sung ${noteText(o.sung.lowest)}–${noteText(o.sung.highest)}, ${o.sung.outside.length} notes outside`,
        ]
      : []),
  ]
  return parts.join(', ')
}

const noteText = (midi: number) => pitchText(plainPitch(midi, false))
const signText = (n: number) => (n > 0 ? `+${n}` : n < 0 ? `−${-n}` : '0')

function partText(part: PartnerPart, numbers: readonly number[]): string {
  const chords = part.chords.map((c) => `${numbers[c.measure]}: ${chordText(c.chord)}`).join(', ')
  const capo = part.capo > 0 ? `, capo ${part.capo}` : ''
  return `${part.partner}: ${keyText(part.key)}${capo}; ${chords}`
}

function voiceFrom(text: string): VoiceRange {
  const read = readRange(text)
  if ('range' in read) return read.range
  throw new UsageError(
    read.fault.kind === 'upsideDown'
      ? `--voice ${text}: the lowest note is above the highest; write ${read.fault.high}-${read.fault.low}.`
      : `--voice "${text}" is no range; write the lowest and the highest note, such as A3-D5.`,
  )
}

function shiftsFrom(text: string): readonly number[] {
  if (text === 'any') return ALL_SHIFTS
  if (text === 'own') return [0]
  return text.split(',').map((s) => semitones(s, 'keys'))
}

/** "3" or "0-7". */
function caposFrom(text: string, highest: number): number[] {
  const [, first, last = first] = /^(\d+)(?:-(\d+))?$/.exec(text) ?? []
  const [from, to] = [Number(first), Number(last)]
  if (first === undefined || from > to || to > highest)
    throw new UsageError(`--capos "${text}": write a fret or a range such as 0-7, up to ${highest}.`)
  return Array.from({ length: to - from + 1 }, (_, i) => from + i)
}
