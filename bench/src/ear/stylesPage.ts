import { writeFileSync, readFileSync } from 'node:fs'
import { wholeTune } from '@velvet-porch/core/arrange'
import { LEVELS, type Level, type Style, type TuneDoc } from '@velvet-porch/core/document'
import { guitarSetup, setupOf } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { textTab } from '@velvet-porch/core/output'
import { arrangeFor } from '../corpus/measure.ts'
import { STYLE_WORDS } from './styleWords.ts'

/** Eight measures of the demo that every style is shown on. */
const SHOWN = 'The Ferry at Dusk'
const SHUFFLED = 'Freight Yard Shuffle'
const MEASURES = 8
const SHOWN_LEVEL: Level = 4

const demo = readAbc(readFileSync(new URL('../../../demo/tunes.abc', import.meta.url), 'utf8'), () => 'tune')
/** The first measures of a tune, without the signs of its form. */
function opening(title: string): TuneDoc {
  const whole = demo.flatMap((r) => r.tune ?? []).find((t) => t.title === title)!
  // A pickup is none of the eight.
  const count = whole.measures[0]!.length < whole.measures[0]!.nominal ? MEASURES + 1 : MEASURES
  const kept = new Set(whole.measures.slice(0, count).map((m) => m.id))
  return {
    ...whole,
    measures: whole.measures
      .slice(0, count)
      .map((m) => ({ ...m, repeatStart: false, repeatEnd: 1, endings: [] })),
    events: whole.events.filter((e) => kept.has(e.pos.measure)),
    chords: whole.chords.filter((c) => kept.has(c.pos.measure)),
    sections: [],
  }
}

const OPEN_G = [62, 59, 55, 50, 43, 38]

function example(style: Style): string {
  const tune = opening(style === 'shuffle' ? SHUFFLED : SHOWN)
  const setup = style === 'bottleneck' ? setupOf('guitar', OPEN_G, { fret: 0 }) : guitarSetup()
  const { layer, plan } = arrangeFor(tune, setup, wholeTune(tune, style, SHOWN_LEVEL))
  const text = textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony })
  const legend = text.indexOf('Over the strings:')
  return text.slice(text.indexOf('\n\n') + 2, legend < 0 ? undefined : legend).trimEnd()
}

const parts = (Object.keys(STYLE_WORDS) as (keyof typeof STYLE_WORDS)[]).map((style) => {
  const { name, what, levels } = STYLE_WORDS[style]
  return `## ${name}\n\n${what}\n\n${LEVELS.map((l) => `${l}. ${levels[l - 1]}`).join('\n')}\n\n\`\`\`\n${example(style)}\n\`\`\`\n`
})
writeFileSync(
  new URL('../../../docs/styles.md', import.meta.url),
  `# The styles, level by level

Written by \`npm run ear\`. What each style does from which level on is common practice, no published source; as data it stands in
\`core/src/arrange/plan/styleRules.ts\`, \`core/src/arrange/ornament/idioms.ts\` and \`core/src/arrange/accompany/patternLibrary.ts\`. What all share: a tune, and a section that
ends on the tonic, comes to rest on its chord with the root below, struck once; book shapes before others; the melody whole.
Where a tune leaves no room for what a level adds (no long note, no beat between), the level plays its next device instead: one more tone with the tune, a denser second voice, or fills in shorter gaps (\`fullerLevel.ts\`).
More on accompaniments and the bottleneck: [accompaniment.md](accompaniment.md). The examples are the first eight measures of a tune
of the demo at level ${SHOWN_LEVEL}, as the program arranges them: *${SHOWN}*, for the shuffle *${SHUFFLED}*, for the bottleneck the
first in open G.

${parts.join('\n')}`,
)
