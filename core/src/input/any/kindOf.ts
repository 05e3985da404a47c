import { directiveIn } from '../song/directive.ts'
import { chordsOverWords, looksLikeSong } from '../song/readingSong.ts'
import { midiInText } from '../midi/midiText.ts'
import { isMusicXml } from '../musicxml/isMusicXml.ts'
import { isJson } from '../sourceText.ts'
import { looksLikeTab } from '../text/readTextTab.ts'
import { textSystems } from '../text/tabLines.ts'

/** What a text can be, by what stands in it: a name or an ending says nothing. */
export const TEXT_KINDS = ['abc', 'tab', 'song', 'musicxml', 'midi', 'json'] as const
export type TextKind = (typeof TEXT_KINDS)[number]

/** Fields that head a tune in ABC and nothing else. */
const ABC_FIELD = /^[ \t]*(?:[XK]:|M:\s*(?:\d+\/\d+|C)|L:\s*\d*\/\d+)/m

/** A line of ABC without any field: notes and bar lines, and more than names of chords. */
const ABC_MUSIC = /^(?=.*\|)(?=.*[A-Ga-gz][,']*\d*[A-Ga-gz])[A-Ga-gxzZ0-9|:\][()/<>\-'",^_=~.{}!#m\s]+$/m

/** Directives that only a song has. */
const OF_A_SONG = /^(?:title|artist|start_of_\w+|end_of_\w+|chorus|capo|key)$/

/**
 * Recognises a text by its content; undefined where nothing in it is understood.
 * @example kindOf('{title: Willow Ferry}') // 'song'
 */
export function kindOf(text: string): TextKind | undefined {
  if (isJson(text)) return 'json'
  if (isMusicXml(text)) return 'musicxml'
  if (midiInText(text)) return 'midi'
  const directed = text.split('\n').some((l) => OF_A_SONG.test(directiveIn(l)?.name ?? ''))
  if (directed) return 'song'
  if (ABC_FIELD.test(text)) return 'abc'
  if (looksLikeTab(text)) return chordsOverWords(text) >= textSystems(text).length ? 'song' : 'tab'
  if (looksLikeSong(text)) return 'song'
  return ABC_MUSIC.test(text) ? 'abc' : undefined
}
