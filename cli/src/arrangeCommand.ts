import { parseArgs } from 'node:util'
import {
  arranging,
  audit,
  finish,
  finishedTabOf,
  guitarSetup,
  problemText,
  STYLES,
  tabJson,
  textTab,
  wholeTune,
  type Level,
  type Player,
  type Setup,
} from '@velvet-porch/core'
import { readAbc } from '@velvet-porch/core/abc'
import { readPlayer } from '@velvet-porch/core/schema'
import { tuningFrom } from './setupFrom.ts'
import { readText } from './readInput.ts'
import { oneOf, UsageError, wholeNumber } from './usage.ts'

/** `porch arrange`: reads ABC, arranges one tune and prints it as tab or as the stable JSON object. */
export function arrangeCommand(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      tune: { type: 'string', default: '1' },
      style: { type: 'string', default: 'melody-bass' },
      level: { type: 'string', default: '1' },
      capo: { type: 'string', default: '0' },
      tuning: { type: 'string', default: 'standard' },
      player: { type: 'string' },
      json: { type: 'boolean', default: false },
      text: { type: 'boolean', default: false },
    },
  })
  const file = positionals[0]
  if (!file) throw new UsageError('Name the ABC file to arrange.')
  const style = oneOf(values.style, STYLES, 'style')
  const level = wholeNumber(values.level, 1, 3, 'level') as Level
  const setup: Setup = {
    ...guitarSetup(wholeNumber(values.capo, 0, 9, 'capo')),
    tuning: tuningFrom('guitar', values.tuning),
    ...(values.player ? { player: playerFrom(values.player) } : {}),
  }
  const source = readText(file)
  const readings = readAbc(source.text, () => 'tune')
  const number = wholeNumber(values.tune, 1, readings.length, 'tune')
  const reading = readings[number - 1]!
  const warnings = [...(source.note ? [source.note] : []), ...reading.problems.map(problemText)]
  if (!reading.tune) throw new UsageError(`${file}: ${warnings.join('\n') || 'no tune could be read.'}`)
  const { tune } = reading
  const started = performance.now()
  const { plan, layer } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
  const elapsedMs = Math.round((performance.now() - started) * 10) / 10
  warnings.push(...plan.unfolded.problems)
  if (plan.transposed !== 0)
    warnings.push(
      `The melody is played ${Math.abs(plan.transposed) / 12} octave(s) ${plan.transposed < 0 ? 'lower' : 'higher'} than written.`,
    )
  const json = tabJson(tune, setup, plan, layer, warnings, elapsedMs)
  const report = audit(finishedTabOf(json))
  if (values.json) {
    process.stdout.write(`${JSON.stringify({ ...json, audit: report })}\n`)
    return
  }
  process.stdout.write(textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony }))
  for (const w of warnings) process.stderr.write(`${w}\n`)
  process.stderr.write(
    `${report.melodyKept} of ${report.melodyNotes} melody notes, ${report.rootsInBass} of ${report.harmonyChanges} roots, ${report.structural} structural faults\n`,
  )
}

/** A hand from a JSON file: spans in mm by finger pair, techniques, school, handedness. */
function playerFrom(file: string): Player {
  let value: unknown
  try {
    value = JSON.parse(readText(file).text)
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(
      `${file}: this is not JSON. A hand is an object with spans, techniques, school and handedness.`,
    )
  }
  try {
    return readPlayer(value)
  } catch (error) {
    throw new UsageError(`${file}: ${(error as Error).message}`)
  }
}
