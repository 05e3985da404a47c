import {
  chordText,
  findShapes,
  pitchAt,
  readChordSymbol,
  shownOrder,
  type Setup,
  type Shape,
} from '@velvet-porch/core'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { useInstrument } from '../instrument/useInstrument.ts'
import { useNames } from '../names/useNames.ts'
import { ChordBox } from '../shapes/ChordBox.tsx'
import { hearShape } from '../shapes/play.ts'

const COMMON = ['C', 'A', 'G', 'E', 'D', 'F', 'Am', 'Em', 'Dm', 'B7', 'E7', 'A7', 'D7', 'G7', 'C7'] as const

/** The common shapes at the nut, sorted by the string of their bass note. */
export function RootsCard({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const { setup } = instrument
  const groups = useMemo(() => byBassString(setup), [setup])
  const names = useNames()
  return (
    <section className="card-sheet" aria-label={t('card.name.roots')}>
      <p className="soft">{t('card.roots.hint')}</p>
      {groups.map(({ string, shapes }) => (
        <div key={string} className="zone">
          <h2>{t('card.roots.on', { string })}</h2>
          <div className="zone-rows">
            {shapes.map(({ name, shape }) => (
              <button
                key={name}
                type="button"
                className="shape-pick"
                data-root={`${name} ${string}`}
                onClick={() => hearShape(setup, shape.frets, 'strum')}
              >
                <b>{nameIn(names, name)}</b>
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

const nameIn = (names: ReturnType<typeof useNames>, text: string) => {
  const reading = readChordSymbol(text)
  return reading.kind === 'chord' ? names.chord(reading.chord) : text
}

/** The best low shape of each common chord (by shape name, the capo aside), grouped by its lowest string. */
function byBassString(setup: Setup) {
  const plain = { ...setup, capo: setup.tuning.map(() => 0) }
  const groups = new Map<
    number,
    { name: string; shape: Shape & { chord: NonNullable<ReturnType<typeof chordFrom>> } }[]
  >()
  for (const text of COMMON) {
    const chord = chordFrom(text)
    if (!chord) continue
    const rows = shownOrder(findShapes(plain, chord, { zone: [1, 4] }))
    const shape = rows.map((r) => r.head).sort((a, b) => a.cost - b.cost)[0]
    if (!shape) continue
    const string = shape.frets.findLastIndex((f) => f !== null) + 1
    groups.set(string, [
      ...(groups.get(string) ?? []),
      { name: chordText(chord), shape: { ...shape, chord } },
    ])
  }
  return [...groups].sort((a, b) => b[0] - a[0]).map(([string, shapes]) => ({ string, shapes }))
}

function chordFrom(text: string) {
  const reading = readChordSymbol(text)
  return reading.kind === 'chord' ? reading.chord : undefined
}
