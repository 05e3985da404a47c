import { chordText, readChordSymbol, type ChordReading } from '@velvet-porch/core/music'
import { pitchAt, STANDARD_TUNING, type LeftFinger, type Setup } from '@velvet-porch/core/instrument'
import { findShapes, heldShapesFor, shownOrder } from '@velvet-porch/core/chords'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { hearShape } from '../../score/playback/playShape.ts'
import neckCss from './neck.module.css'

const COMMON = ['C', 'A', 'G', 'E', 'D', 'F', 'Am', 'Em', 'Dm', 'B7', 'E7', 'A7', 'D7', 'G7', 'C7'] as const

/** The common shapes at the nut, sorted by the string of their bass note. */
export function RootsCard({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const { setup } = instrument
  const groups = useMemo(() => byBassString(setup), [setup])
  const names = useNames()
  return (
    <section className={neckCss['card-sheet']} aria-label={t('card.name.roots')}>
      <p className="soft">{t('card.roots.hint')}</p>
      {groups.map(({ string, shapes }) => (
        <div key={string} className="zone">
          <h2>{t('card.roots.on', { string })}</h2>
          <div className="zone-rows">
            {shapes.map((shape) => (
              <button
                key={shape.name}
                type="button"
                className="shape-pick"
                data-root={`${shape.name} ${string}`}
                onClick={() => hearShape(setup, shape.frets, 'strum')}
              >
                <b>{names.chord(shape.chord)}</b>
                <ChordBox
                  setup={setup}
                  frets={shape.frets}
                  fingers={shape.fingers}
                  chord={shape.chord}
                  size={0.85}
                />
                <span>{names.pitch(pitchAt(setup, { string, fret: shape.frets[string - 1]! }))}</span>
              </button>
            ))}
          </div>
        </div>
      ))}
    </section>
  )
}

interface Rooted {
  readonly name: string
  readonly chord: ChordReading
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
}

/** The low shape of each common chord (by shape name, the capo aside), grouped by its lowest string. */
function byBassString(setup: Setup): { string: number; shapes: Rooted[] }[] {
  const plain = { ...setup, capo: setup.tuning.map(() => 0) }
  const groups = new Map<number, Rooted[]>()
  for (const text of COMMON) {
    const reading = readChordSymbol(text)
    const held = reading.kind === 'chord' ? lowShape(plain, reading.chord) : undefined
    if (reading.kind !== 'chord' || !held) continue
    const string = held.frets.findLastIndex((f) => f !== null) + 1
    const rooted = { name: chordText(reading.chord), chord: reading.chord, ...held }
    groups.set(string, [...(groups.get(string) ?? []), rooted])
  }
  return [...groups].sort((a, b) => b[0] - a[0]).map(([string, shapes]) => ({ string, shapes }))
}

/** The shape that first books print where there is one, else the best that is found at the nut. */
function lowShape(setup: Setup, chord: ChordReading): Pick<Rooted, 'frets' | 'fingers'> | undefined {
  if (setup.tuning.length === STANDARD_TUNING.length) {
    const frame = heldShapesFor(chord, setup).find((f) => f.textbook)
    if (frame)
      return {
        frets: frame.frets,
        fingers: frame.frets.map(
          (_, i) => (frame.pressed.find((p) => p.string === i + 1)?.finger ?? 0) as LeftFinger,
        ),
      }
  }
  return shownOrder(findShapes(setup, chord, { zone: [1, 4] }))
    .map((r) => r.head)
    .sort((a, b) => a.cost - b.cost)[0]
}
