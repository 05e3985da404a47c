import { measureNumbers, type Layer, type Ornament, type TuneDoc } from '@velvet-porch/core/document'
import {
  arranging,
  betterKey,
  betterKeyMessage,
  harmoniseIn,
  leftOut,
  MANNERS,
  remarkMessages,
  type LeftOrnament,
  type Manner,
  type Plan,
} from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { convertAll, isFolder, withFolderOptions, type FolderValues } from './batch/convertAll.ts'
import { askedFrom } from './askedFrom.ts'
import { collected, command, withArrangeOptions } from './options.ts'
import { patternFrom } from './patternFrom.ts'
import { lockFrom } from './lockFrom.ts'
import { printHands } from './handsCommand.ts'
import { printTab } from './printTab.ts'
import { holdsTab } from './scoreFrom.ts'
import { tuneFrom } from './tuneFrom.ts'
import { oneOf, UsageError, wholeNumber } from './usage.ts'
import { say } from './words.ts'

interface Values extends FolderValues {
  readonly ornament?: string
  readonly pattern?: string
  readonly perBeat?: string
  readonly lock: readonly string[]
  readonly harmonise?: boolean
  readonly manner: string
  readonly json?: boolean
}

/** `porch arrange`: reads a text of any kind, arranges one tune and prints it as tab or as the stable JSON object. */
export const arrangeCommand = withFolderOptions(
  withArrangeOptions(
    command(
      'arrange',
      'file',
      'Arranges a tune (ABC, MusicXML, MIDI) or a song (words with chords) and prints it as tab; a tab gets both hands. The tunes of a folder are written as files.',
    ),
    '1',
  ),
  'json,musicxml,txt',
)
  .option('--ornament <0-3>', 'how much the fretting hand sounds alone')
  .option('--pattern <pattern>', 'a picking pattern or strum for every measure')
  .option('--per-beat <number>', 'steps of the pattern in a beat')
  .option(
    '--lock <lock>',
    'holds one thing, as "measure 1 beat 1 melody string 3"; as often as wanted',
    collected,
    [],
  )
  .option('--harmonise', 'proposes chords in place of its own')
  .option('--manner <manner>', `how it proposes them: ${MANNERS.join(', ')}`, 'family')
  .option('--json', 'prints one JSON object (docs/tab-json.md)')
  .option('--text', 'prints text tab, the usual way')
  .action(run)

async function run(file: string, values: Values): Promise<void> {
  if (isFolder(file)) return convertAll(file, values)
  if (holdsTab(file)) return printHands(file, values)
  const found = tuneFrom(file, values)
  const { style, level, setup, regions: asked } = askedFrom(values, found)
  const { tune: read } = found
  const warnings = [...found.warnings]
  const tune = values.harmonise ? harmonised(read, oneOf(values.manner, MANNERS, 'manner'), warnings) : read
  const locks = values.lock.map((text, i) => lockFrom(text, tune, `lock ${i + 1}`)).flat()
  const started = performance.now()
  const ornament =
    values.ornament === undefined ? undefined : (wholeNumber(values.ornament, 0, 3, 'ornament') as Ornament)
  const pattern = patternFrom(values.pattern, values.perBeat, tune, style)
  const regions = asked(tune).map((r) => ({
    ...r,
    ...(pattern ? { pattern } : {}),
    ...(ornament === undefined ? {} : { ornament }),
  }))
  const { plan, layer, idleLocks, remarks, ornamentsLeft } = finish(
    arranging(tune, setup, regions, { locks }),
  )
  const elapsedMs = Math.round((performance.now() - started) * 10) / 10
  if (idleLocks.length > 0) {
    const numbers = [...new Set(idleLocks.map((id) => Number(id.split(' ')[1])))]
    const named = numbers.map((n) => `"${values.lock[n - 1]}"`).join(', ')
    throw new UsageError(`--lock ${named}: no such note is played there in ${style}, level ${level}.`)
  }
  warnings.push(...leftOutText(plan, layer, tune))
  warnings.push(...plan.unfolded.problems.map(say))
  const numbers = measureNumbers(tune.measures)
  const left = ornamentsLeft.filter((l) => l.reason !== 'none')
  warnings.push(...left.map((l) => `Measure ${numbers[l.measure]}: ${LEFT_TEXTS[l.reason]}.`))
  warnings.push(...remarks.map((r) => remarkMessages(r, numbers[r.measure]!).map(say).join(' ')))
  const better = betterKey(tune, setup, plan)
  if (better) warnings.push(say(betterKeyMessage(better)))
  const octaves = (plan.transposed - (setup.shift ?? 0)) / 12
  if (setup.octave !== undefined && setup.octave !== octaves)
    throw new UsageError(
      `--octave=${setup.octave}: the melody does not lie there on this instrument; ${octaves} does, or leave --octave out.`,
    )
  if (octaves !== 0) {
    const far = Math.abs(octaves) === 1 ? 'an octave' : `${Math.abs(octaves)} octaves`
    warnings.push(`The melody is played ${far} ${octaves < 0 ? 'lower' : 'higher'} than written.`)
  }
  const report = printTab({ tune, setup, plan, layer, warnings, elapsedMs }, values.json)
  if (values.json) return
  process.stderr.write(
    `${report.melodyNotes === 0 ? '' : `${report.melodyKept} of ${report.melodyNotes} melody notes, `}${report.rootsInBass} of ${report.harmonyChanges} roots, ${report.structural} structural faults\n`,
  )
}

/** Why an ornament is not played. */
const LEFT_TEXTS: Readonly<Record<LeftOrnament['reason'], string>> = {
  tooFast: 'an ornament of the source is left out, too fast at this tempo',
  noRoom: 'an ornament of the source is left out, no finger is free for it at this place',
  none: 'an ornament of the source is left out, as every note is to be plucked',
  notPossible: 'a note cannot be sounded as asked; the note before does not sound into it on the same string',
  noBend:
    'no room for the bend; it needs fret 2 or higher, a finger behind it and free strings beside. Slide or hammer it instead',
}

/** The tune with a proposed harmony in place of its own. */
function harmonised(tune: TuneDoc, manner: Manner, warnings: string[]): TuneDoc {
  const { chords, holds } = harmoniseIn(tune, manner)
  if (tune.chords.some((c) => c.origin === 'given')) warnings.push("The tune's own chords were set aside.")
  warnings.push(
    `The chords are a suggestion (${manner}); ${Math.round(holds * 100)} % of the melody lies in them.`,
  )
  return { ...tune, chords }
}

/** What of two parts could not be kept, a line a measure. */
function leftOutText(plan: Plan, layer: Layer, tune: TuneDoc): string[] {
  const numbers = measureNumbers(tune.measures)
  return leftOut(plan, layer, tune)
    .filter((l) => l.notes > 0)
    .map(
      ({ measure, notes }) =>
        `Measure ${numbers[measure]}: ${notes} note(s) of the second part are left out; the hand cannot hold them with the melody.`,
    )
}
