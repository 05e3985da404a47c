import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { arrangementOf, arranging, wholeTune } from '@velvet-porch/core/arrange'
import type { Score } from '@velvet-porch/core/document'
import { readAbc } from '@velvet-porch/core/input/abc'
import { readingMidi } from '@velvet-porch/core/input/midi'
import { readingMusicXml, type MusicXmlReading } from '@velvet-porch/core/input/musicxml'
import { writeMidi } from '@velvet-porch/core/output/midi'
import { writeMusicXml } from '@velvet-porch/core/output/musicxml'
import { readArrangementDoc, readTuneDoc } from '@velvet-porch/core/schema'
import { finish } from '@velvet-porch/core/turns'
import { oneOf, wholeBelow, type Chance } from '../../../../e2e/chance.ts'
import { mutateText } from '../mutateText.ts'
import { refusal, type Complaint, type FuzzTarget } from '../target.ts'

const TUNE = readAbc(
  'X:1\nT:Slate Roof\nM:3/4\nL:1/8\nQ:1/4=90\nK:D\nP:A\n|:"D"A2|d2 (3efe dA|"G"B4 {c}d2|1 "A7"c2 e2 c2|"D"d4:|2 "A7"c2-c2 e2|"D"d4|]\nw:one two three-four five|six seven|eight nine ten|eleven|\n',
  () => 'tune',
)[0]!.tune!

function arranged(): Required<Score> {
  const setup = guitarSetup(2)
  const regions = wholeTune(TUNE, 'arpeggio', 4)
  const { layer, plan } = finish(arranging(TUNE, setup, regions))
  const made = { layer, transposed: plan.transposed }
  return { tune: TUNE, arrangement: arrangementOf('a', TUNE.title, TUNE, setup, regions, made) }
}
const SCORE = arranged()

/** What storage would say of what was read; whatever could not be read must have been said. */
function complaintsOn({ tune, arrangement, problems }: MusicXmlReading): Complaint[] {
  if (!tune)
    return problems.some((p) => p.severity === 'error')
      ? []
      : [refusal('nothing is read, and nothing is said')]
  try {
    readTuneDoc(tune)
    if (arrangement) readArrangementDoc(arrangement, tune)
    return []
  } catch (error) {
    return [refusal((error as Error).message)]
  }
}

const WORDS = [
  '<note>', '</note>', '<chord/>', '<rest/>', '<duration>0</duration>', '<duration>-4</duration>', '<duration>1e9</duration>', '<backup>', '</measure>',
  '<divisions>7</divisions>', '<beats>0</beats>', '<fifths>44</fifths>', '<string>9</string>', '<fret>-1</fret>', '<octave>99</octave>', '<alter>0.5</alter>',
  '<repeat direction="backward" times="999"/>', '<ending number="1,9" type="start"/>', '<grace/>', '<voice>x</voice>', '&amp;', '&none;', '<!--', ']]>',
] // prettier-ignore

export const musicXmlTarget: FuzzTarget<string> = {
  name: 'musicxml',
  seeds: [writeMusicXml({ tune: TUNE }), writeMusicXml(SCORE)],
  mutate: (seed, chance) => mutateText(seed, [seed], WORDS, chance),
  read: (text) =>
    finish(readingMusicXml(text, { newId: () => 'x', player: DEFAULT_PLAYER, title: 'New' })).flatMap(
      complaintsOn,
    ),
}

/** A file with some of its bytes changed, taken away, or doubled. */
function mutateBytes(seed: Uint8Array, chance: Chance): Uint8Array {
  const bytes = [...seed]
  for (let i = 1 + wholeBelow(chance, 6); i > 0; i--) {
    const at = wholeBelow(chance, bytes.length)
    const how = wholeBelow(chance, 4)
    if (how === 0) bytes.splice(at, 1 + wholeBelow(chance, 40))
    else if (how === 1) bytes.splice(at, 0, ...bytes.slice(at, at + 1 + wholeBelow(chance, 40)))
    else bytes[at] = oneOf(chance, [0, 1, 0x7f, 0x80, 0xff, wholeBelow(chance, 256)])
  }
  return Uint8Array.from(bytes)
}

export const midiTarget: FuzzTarget<Uint8Array> = {
  name: 'midi',
  seeds: [writeMidi(SCORE)],
  mutate: mutateBytes,
  read: (bytes) => complaintsOn(finish(readingMidi(bytes, { newId: () => 'x', title: 'New' }))),
}
