import { convertAll, isFolder, withFolderOptions, type FolderValues } from './batch/convertAll.ts'
import { closeBrowser } from './convert/drawn.ts'
import { scoreOf } from './convert/scoresFrom.ts'
import { targetOf } from './convert/targets.ts'
import { writeScore } from './convert/writeScore.ts'
import { command, withArrangeOptions } from './options.ts'
import { readText } from './readInput.ts'
import { understoodFrom } from './tuneFrom.ts'
import { UsageError, wholeNumber } from './usage.ts'
import { problemText, say } from './words.ts'

/** `porch convert`: one tune into another format, or a folder of tunes. */
export const convertCommand = withFolderOptions(
  withArrangeOptions(
    command(
      'convert',
      'in',
      'Writes a tune in another format, told by the ending: musicxml, mxl, mid, abc, cho, txt, json, svg, png, pdf, wav. A folder is converted tune by tune.',
    )
      .argument('[out]')
      .usage('<in> <out> [options]\n       porch convert <folder> --out <folder> --to <formats> [options]'),
    '3',
  ),
  'musicxml',
).action(run)

async function run(file: string, out: string | undefined, values: FolderValues): Promise<void> {
  if (isFolder(file)) return convertAll(file, { ...values, ...(out === undefined ? {} : { out }) })
  if (out === undefined) throw new UsageError('Say what is to be written: porch convert IN OUT.')
  const target = targetOf(out)
  const source = readText(file)
  const { tunes } = understoodFrom(file, source.text, values)
  const understood = tunes[wholeNumber(values.tune, 1, tunes.length, 'tune') - 1]!
  const score = scoreOf(understood)
  try {
    const { left } = await writeScore(score, understood.song, target, out, values)
    if (source.note) process.stderr.write(`${say(source.note)}\n`)
    for (const p of understood.problems) process.stderr.write(`${problemText(p)}\n`)
    process.stderr.write(`${score.tune.title}: ${out}\n${left === '' ? '' : `${left}\n`}`)
  } finally {
    await closeBrowser()
  }
}
