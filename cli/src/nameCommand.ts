import { chordText } from '@velvet-porch/core/music'
import { lastFret, type Setup } from '@velvet-porch/core/instrument'
import { nameShape } from '@velvet-porch/core/chords'
import { command, withSetupOptions } from './options.ts'
import { setupFrom, type SetupValues } from './setupFrom.ts'
import { UsageError } from './usage.ts'

interface Values extends SetupValues {
  readonly json?: boolean
}

/** `porch name`: what a set of places is called, by its shape and by its sound. */
export const nameCommand = withSetupOptions(
  command('name', 'frets', 'Names a chord from its frets, the lowest string first: x-3-2-0-1-0 or x32010.'),
)
  .option('--json', 'prints one JSON object')
  .action(run)

function run(given: string, values: Values): void {
  const setup = setupFrom(values)
  const names = nameShape(setup, fretsFrom(setup, given)).map((n) => ({
    shape: chordText(n.shape),
    sounding: chordText(n.sounding),
  }))
  if (values.json) process.stdout.write(`${JSON.stringify({ names })}\n`)
  else if (names.length === 0)
    process.stdout.write('no chord: fewer than two different notes, or no name in use\n')
  else
    for (const n of names)
      process.stdout.write(n.shape === n.sounding ? `${n.shape}\n` : `${n.shape}  sounds ${n.sounding}\n`)
}

/** Frets as they are said, from the lowest string: `x-3-2-0-1-0`, or `x32010` where all are below ten. */
function fretsFrom(setup: Setup, text: string): (number | null)[] {
  const { strings } = setup.instrument
  const parts = text
    .trim()
    .split(/[-\s,]+/)
    .filter(Boolean)
  const each = parts.length === 1 && parts[0]!.length === strings ? [...parts[0]!] : parts
  if (each.length !== strings)
    throw new UsageError(
      `Write ${strings} frets from the lowest string, x for a string that does not sound, for example ${strings === 6 ? 'x-3-2-0-1-0' : '0-2-3-0'}.`,
    )
  return each
    .map((part, i) => {
      if (/^x$/i.test(part)) return null
      const string = strings - i
      const fret = /^\d+$/.test(part) ? Number(part) : NaN
      if (!(fret <= lastFret(setup, string)))
        throw new UsageError(
          `"${part}" on string ${string} is not a fret from 0 to ${lastFret(setup, string)}${setup.capo[0] ? ' above the capo' : ''}.`,
        )
      return fret
    })
    .reverse()
}
