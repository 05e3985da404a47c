import { Command } from 'commander'
import { INSTRUMENTS, withShift, type Setup } from '@velvet-porch/core/instrument'
import { STYLES } from '@velvet-porch/core/document'
import { CAPO_MEANINGS } from '@velvet-porch/core/input/song'
import { playerFrom } from './playerFrom.ts'
import { setupFrom, type SetupValues } from './setupFrom.ts'
import { semitones, wholeNumber } from './usage.ts'

/** A command of the command line: what it does in one sentence, and the one thing that it is given. */
export const command = (name: string, given: string, does: string): Command =>
  new Command(name)
    .description(does)
    .argument(`<${given}>`)
    .usage(`<${given}> [options]`)
    .helpOption('-h, --help', 'show this help')
    .allowExcessArguments(false)

/** Adds the options that describe the instrument. */
export const withSetupOptions = (to: Command): Command =>
  to
    .option('--instrument <name>', `one of ${Object.keys(INSTRUMENTS).join(', ')}`, 'guitar')
    .option(
      '--tuning <tuning>',
      'the name of a tuning, or its notes from the lowest string: "D A D G A D"',
      'standard',
    )
    .option('--capo <fret>', 'the fret that the capo lies at; left out: where the text says, or nowhere')

/** What the options of every command that arranges hold. */
export interface ArrangeValues extends SetupValues {
  readonly tune: string
  /** Absent: the melody over a bass, or a strum where there is no melody. */
  readonly style?: string
  readonly level: string
  readonly player?: string
  readonly capoMeans: string
  readonly bars?: string
  readonly shift: string
  readonly octave?: string
  readonly school: readonly string[]
  readonly taste?: string
}

/** What is arranged where no style is named: a melody, and a song that has none. */
export const MELODY_STYLE = 'melody-bass'
export const SONG_STYLE = 'strum'

/** Adds the options of every command that arranges: which tune, on what, for which hand, in which style and school. */
export const withArrangeOptions = (to: Command, level: string): Command =>
  withSchoolOptions(
    withSetupOptions(
      to
        .option('--tune <number>', 'which tune of the file', '1')
        .option(
          '--style <style>',
          `one of ${STYLES.join(', ')}; left out: ${MELODY_STYLE}, or ${SONG_STYLE} where there is no melody`,
        )
        .option('--level <1-5>', 'how much is played', level),
    )
      .option(
        '--capo-means <what>',
        `what chord names of a song with a capo are: ${CAPO_MEANINGS.join(', ')}`,
        'shapes',
      )
      .option('--bars <number>', 'how many bars a line of a song takes, where it does not say so')
      .option('--taste <taste.json>', 'a taste that is kept to (docs/taste.md)')
      .option('--shift <semitones>', 'play it higher, or lower below 0', '0')
      .option('--octave <-2..2>', 'where the melody lies; left out: where it is best played'),
  )

/** Adds whose hand plays, and how it is taught. */
export const withSchoolOptions = (to: Command): Command =>
  to
    .option('--player <hand.json>', 'the measures of a hand')
    .option('--school <name=choice>', 'one habit of a school; as often as wanted', collected, [])

/** An option that may be given several times. */
export const collected = (value: string, all: readonly string[]): string[] => [...all, value]

/** The setup that the options ask for, with the hand of the player's file where one is named. */
export function playedSetupFrom(values: ArrangeValues, textCapo: number): Setup {
  const octave = values.octave === undefined ? undefined : wholeNumber(values.octave, -2, 2, 'octave')
  const setup = withShift(setupFrom(values, textCapo), semitones(values.shift, 'shift'), octave)
  return values.player ? { ...setup, player: playerFrom(values.player) } : setup
}
