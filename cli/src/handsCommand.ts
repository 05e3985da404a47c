import type { Setup } from '@velvet-porch/core/instrument'
import { makePlan } from '@velvet-porch/core/arrange'
import { printTab } from './printTab.ts'
import { schoolFrom } from './schoolFrom.ts'
import { placedFrom } from './placedFrom.ts'
import { playerFrom } from './playerFrom.ts'
import { holdsTab, scoreFrom } from './scoreFrom.ts'
import { setupFrom, type SetupValues } from './setupFrom.ts'
import { command, withSchoolOptions, withSetupOptions } from './options.ts'
import { UsageError } from './usage.ts'

interface Values extends SetupValues {
  readonly tune: string
  readonly player?: string
  readonly school: readonly string[]
  readonly json?: boolean
}

/** `porch hands`: reads text tab, finds both hands for its places, and prints it as tab or as the stable JSON object. */
export const handsCommand = withSchoolOptions(
  withSetupOptions(
    command(
      'hands',
      'file',
      'Finds both hands for given places: a text tab, or ABC with places over its notes.',
    ),
  ).option('--tune <number>', 'which tune of an ABC file', '1'),
)
  .option('--json', 'prints the same JSON object as porch arrange')
  .action(printHands)

/** What ABC is played on; a text tab says so itself. */
function playedOn(values: Values): Setup {
  const setup = setupFrom(values)
  return values.player ? { ...setup, player: playerFrom(values.player) } : setup
}

/** Finds both hands for a file's places and prints them; `porch arrange` does the same with a text tab. */
export function printHands(file: string, values: Values): void {
  const started = performance.now()
  const school = schoolFrom(values.school)
  const { score, warnings } = holdsTab(file)
    ? scoreFrom(file, values.player, school)
    : placedFrom(file, values, playedOn(values), school)
  const { tune, arrangement } = score
  const { setup, regions, base: layer } = arrangement
  const planned = makePlan(tune, setup, regions)
  if (!planned.ok) throw new UsageError(`${file}: the tab holds no notes.`)
  const { plan } = planned
  const elapsedMs = Math.round((performance.now() - started) * 10) / 10
  printTab({ tune, setup, plan, layer, warnings, elapsedMs }, values.json)
}
