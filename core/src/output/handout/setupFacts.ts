import { feelOfMeasures } from '../../document/swing.ts'
import { transposeKey, type Key } from '../../music/pitch/key.ts'
import { noteIn } from '../../music/pitch/noteNaming.ts'
import { plainName } from '../../music/pitch/pitch.ts'
import type { Lesson } from '../../lesson/text/lesson.ts'
import { namingOf } from '../../lesson/text/lessonSettings.ts'
import { fill } from '../../lesson/text/template.ts'

/** Capo, tuning, the key that sounds and the one whose shapes are held, the tempo: what is set before playing. */
export function setupFacts({ doc, tune, goalBpm, phrasing, settings }: Lesson): string[] {
  const { blocks, modes } = phrasing.paper
  const naming = namingOf(settings)
  const capo = doc.setup.capo[0]!
  const feels = [...new Set(feelOfMeasures(tune, doc.regions))].flatMap((f) => f ?? [])
  const sounding = transposeKey(tune.measures[0]!.key, doc.transposed)
  const key = (k: Key) => `${noteIn(naming, k.tonic)} ${modes[k.mode]}`
  const tuning = [...doc.setup.tuning].reverse().map((m) => noteIn(naming, plainName(m, false)))
  return [
    capo > 0 ? fill(blocks.capo, { capo }) : blocks.noCapo,
    fill(blocks.tuning, { tuning: tuning.join(' ') }),
    fill(blocks.soundsIn, { key: key(sounding) }),
    ...(capo > 0 ? [fill(blocks.shapesIn, { key: key(transposeKey(sounding, -capo)) })] : []),
    fill(blocks.tempo, { bpm: goalBpm }),
    ...feels.map((f) => blocks.feel[f]),
  ]
}
