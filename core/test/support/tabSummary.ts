import { readAny } from '../../src/input/any/index.ts'
import { DEFAULT_PLAYER } from '../../src/instrument/index.ts'
import { nameText, plainPitch } from '../../src/music/pitch/pitch.ts'

const HALF_BEAT = 5040

/** What a text tab holds, a few lines a tune: facts, notes as string.fret at half beats, chords, parts, repeats, doubts. */
export function tabSummary(text: string): string[] {
  const { tunes } = readAny(text, { newId: () => 't', player: DEFAULT_PLAYER, title: 'New' })
  return tunes.flatMap(({ tune, arrangement, problems }) => {
    const doubts = problems
      .filter((p) => p.severity !== 'note')
      .map((p) => `${p.line}:${p.says.code.slice('reading.'.length)}`)
    if (!tune || !arrangement) return [`nothing: ${doubts.join(' ')}`]
    const { setup, base } = arrangement
    const tempo = tune.tempos[0]!
    const facts = [
      tune.title,
      ...(tune.composer ? [`by ${tune.composer}`] : []),
      setup.tuning
        .toReversed()
        .map((m) => nameText(plainPitch(m, false)))
        .join(' '),
      ...(setup.capo[0] ? [`capo ${setup.capo[0]}`] : []),
      ...(tempo.stated ? [`♩ = ${tempo.bpm}`] : []),
    ]
    const measures = tune.measures.map((m) => {
      const part = tune.sections.find((s) => s.measure === m.id)
      const chords = tune.chords.filter((c) => c.pos.measure === m.id && c.origin === 'given')
      const notes = base.notes
        .filter((n) => n.pos.measure === m.id)
        .sort((a, b) => a.pos.tick - b.pos.tick || a.place.string - b.place.string)
        .map((n) => {
          const { string, fret, harmonic } = n.place
          const how = n.attack === 'pluck' ? '' : n.attack === 'muted' ? 'x' : n.attack.slice(0, 1)
          const signs = `${harmonic ? 'o' : ''}${n.bend ? `^${n.bend}` : ''}${n.vibrato ? '~' : ''}${n.optional ? '?' : ''}${n.palmMute ? 'm' : ''}${n.letRing ? 'r' : ''}`
          return `${how}${string}.${fret}${signs}@${+(n.pos.tick / HALF_BEAT).toFixed(2)}`
        })
      return [
        part ? `[${part.name}] ` : '',
        m.repeatStart ? '|: ' : '',
        chords.map((c) => `<${c.symbol}@${+(c.pos.tick / HALF_BEAT).toFixed(2)}> `).join(''),
        notes.join(' ') || '–',
        m.repeatEnd > 1 ? ` :| x${m.repeatEnd}` : '',
        m.provenance === 'guessed' ? ' ?' : '',
      ].join('')
    })
    return [facts.join(' · '), ...measures, ...(doubts.length > 0 ? [`! ${doubts.join(' ')}`] : [])]
  })
}
