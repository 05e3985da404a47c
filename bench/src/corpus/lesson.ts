import {
  LANGUAGES,
  lessonScript,
  replay,
  scriptText,
  ticksAt,
  timelineOf,
  wordsFor,
  type Layer,
  type Setup,
  type Speech,
  type TuneDoc,
} from '@velvet-porch/core'

const SPEECHES = LANGUAGES.flatMap((language) =>
  (['full', 'short'] as const).flatMap((length) =>
    (['names', 'numbers'] as const).map((fingers): Speech => ({ language, length, fingers })),
  ),
)
let turn = 0

/**
 * True where somebody who has only the words of the lesson does not arrive at the tab: strings, frets, fingers, picking
 * and ways of sounding, moment by moment. Every language and way of speaking takes its turn.
 */
export function lessonDiffers(tune: TuneDoc, setup: Setup, base: Layer): boolean {
  const words = wordsFor(SPEECHES[turn++ % SPEECHES.length]!)
  try {
    const told = replay(scriptText(lessonScript(tune, { base, setup }, words)), words)
      .filter((s) => s.notes.length > 0)
      .map((s) =>
        s.notes
          .map((n) => [n.string, n.fret, n.finger ?? 0, n.picking ?? 'none', n.attack].join())
          .sort()
          .join(' '),
      )
    return told.join('\n') !== written(tune, base).join('\n')
  } catch {
    return true
  }
}

/** The tab in the same form. */
function written(tune: TuneDoc, { notes }: Layer): string[] {
  const timeline = timelineOf(tune.measures)
  const moments = new Map<number, string[]>()
  for (const n of notes) {
    const at = ticksAt(timeline, n.pos)
    const said = [n.place.string, n.place.fret, n.left, n.right, n.attack].join()
    moments.set(at, [...(moments.get(at) ?? []), said])
  }
  return [...moments].sort(([a], [b]) => a - b).map(([, own]) => own.sort().join(' '))
}
