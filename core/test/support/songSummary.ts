import { readSong } from '../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../src/input/song/songTune.ts'
import { keyText } from '../../src/music/pitch/key.ts'

/** A song as read, a line each for what a reader must not lose: facts, parts, lines with the chords at their letters. */
export function songSummary(text: string): string[] {
  const read = readSong(text)
  const { tune, problems } = tuneOfSong(read, 't')
  const facts = [
    read.title ?? '(no title)',
    ...(read.artist ? [`by ${read.artist}`] : []),
    keyText(tune.measures[0]!.key),
    ...(read.metre ? [`${read.metre.num}/${read.metre.den}`] : []),
    ...(read.bpm ? [`♩ = ${read.bpm}`] : []),
    ...(read.capo ? [`capo ${read.capo}`] : []),
    ...(read.tuning ? [`tuned ${read.tuning}`] : []),
    ...(read.strum ? [`strum ${read.strum}`] : []),
  ]
  const parts = read.parts.flatMap((part) => [
    `# ${part.name || '–'}${part.times > 1 ? ` x${part.times}` : ''}${part.recalled ? ' again' : ''}`,
    ...part.lines.map((line) => {
      if (line.kind === 'remark') return `(${line.text.trim()})`
      let out = ''
      let from = 0
      for (const { at, symbol } of line.chords) {
        out += `${line.text.slice(from, at)}[${symbol}]`
        from = at
      }
      const bars = line.bars === undefined ? '' : ` {${line.bars}}`
      const repeats = (line.repeats ?? []).map((r) => ` {${r.from + 1}-${r.to + 1} x${r.times}}`).join('')
      const who = line.singer === undefined ? '' : `${line.singer}: `
      return `${who}${out}${line.text.slice(from)}${line.times > 1 ? ` x${line.times}` : ''}${bars}${repeats}`
    }),
  ])
  const said = problems
    .map((p) => p.says.code.slice('reading.'.length))
    .filter((c) => !/^song(Bars|Shapes)$/.test(c))
  return [facts.join(' · '), ...parts, ...(said.length > 0 ? [`! ${said.join(' ')}`] : [])]
}
