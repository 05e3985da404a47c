import { wordsInMeasures } from '../../src/document/index.ts'
import { readAbc } from '../../src/input/abc/index.ts'
import { keyText } from '../../src/music/pitch/key.ts'

/** What a text in ABC holds, a line a tune; one that cannot be read with the code of its reason. */
export const abcSummary = (text: string): string[] =>
  readAbc(text, () => 't').map(({ tune, problems }) => {
    const doubts = problems
      .filter((p) => p.severity !== 'note')
      .map((p) => p.says.code.slice('reading.'.length))
    if (!tune)
      return `nothing: line ${problems.find((p) => p.severity === 'error')?.line} ${doubts.join(' ')}`
    const { key, metre } = tune.measures[0]!
    const chords = tune.chords.filter((c) => c.origin === 'given').map((c) => c.symbol)
    const words = [
      ...tune.events.map((e) => e.lyric ?? ''),
      ...wordsInMeasures(tune).map((w) => w.text),
    ].filter(Boolean)
    return [
      tune.title,
      `${tune.measures.length} measures`,
      `${tune.events.filter((e) => e.pitch).length} notes`,
      ...(chords.length > 0 ? [chords.join(' ')] : []),
      `${keyText(key)} ${metre.num}/${metre.den}`,
      ...(words.length > 0 ? [words.join(' ')] : []),
      ...(doubts.length > 0 ? [`! ${doubts.join(' ')}`] : []),
    ].join(' · ')
  })
