import { readFileSync } from 'node:fs'
import { wholeTune, newMemory } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangeFor } from './corpus/measure.ts'
import { traditionalTunes } from './corpus/tunes.ts'
import { pageOf } from './ear/page.ts'
const read = (p: string) => readAbc(readFileSync(new URL(p, import.meta.url), 'utf8'), () => 'tune').flatMap((r) => (r.tune ? [r.tune] : []))
const tunes = [...read('../../demo/tunes.abc'), ...traditionalTunes(), ...read('./ear/tunes.abc')].filter((t) => t.chords.length > 0)
const [style, level] = [process.argv[2] as never, Number(process.argv[3]) as never]
const memory = newMemory()
const B = /^(B|Bm|Bb|Bbm|Cm|C#m|F#|F#m|Gm|G#m|Ab|Db|Eb|Fm|Bm7|Cm7|F#m7|Gm7)$/
const tally = new Map<string, number>()
for (const t of tunes) {
  const p = pageOf(arrangeFor(t, guitarSetup(), wholeTune(t, style, level), memory).json)
  for (const c of p.chords) {
    if (!B.test(c.symbol)) continue
    const o = p.onsets.find((x) => x.at === c.start)
    const b = o?.notes[0]
    if (!b) continue
    const k = `${c.symbol} ${b.string}/${b.fret} mel ${o!.notes.filter((n) => n.role === 'melody').map((n) => n.string + '/' + n.fret + '=' + n.midi)}`
    if (b.fret >= 5) tally.set(k + ' ' + t.title, (tally.get(k + ' ' + t.title) ?? 0) + 1)
  }
}
console.log([...tally].map(([k, n]) => `${n} ${k}`).join('\n'))
