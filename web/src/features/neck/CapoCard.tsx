import { TextInput } from '@mantine/core'
import { transposeChord, type ChordReading } from '@velvet-porch/core/music'
import { fretFromNut, highestCapo } from '@velvet-porch/core/instrument'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useNames } from '../../ui/names/useNames.ts'
import neckCss from './neck.module.css'

/** Where a capo leaves little neck. Common practice, no source. */
const HIGHEST_CAPO = 7

/** From shape to sound for every capo: what the hand holds, what the pianist plays. */
export function CapoCard({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const [params] = useSearchParams()
  const { set, setup, kind, capo: chosen } = instrument
  const typed = params.get('shapes') ?? 'G Em C D Am E A'
  const [draft, setDraft] = useState(typed)
  const shapes = typed.split(/[\s,|]+/).flatMap((text): ChordReading[] => {
    const reading = names.readChord(text)
    return reading.kind === 'chord' ? [reading.chord] : []
  })
  const { scaleLength } = setup.instrument
  const frame = (capo: number) =>
    Math.round(fretFromNut(scaleLength, capo + 4) - fretFromNut(scaleLength, capo + 1))
  const capos = Array.from({ length: Math.min(highestCapo(kind), 11) + 1 }, (_, i) => i)
  return (
    <section className={neckCss['card-sheet']} aria-label={t('card.name.capo')}>
      <TextInput
        maw={420}
        label={t('card.capo.shapes')}
        value={draft}
        onChange={(event) => {
          setDraft(event.currentTarget.value)
          set({ shapes: event.currentTarget.value })
        }}
      />
      <table className={neckCss['card-table']} data-testid="capo-table">
        <thead>
          <tr>
            <th>{t('instrument.capo')}</th>
            {shapes.map((s, i) => (
              <th key={i}>{t('card.capo.shape', { shape: names.chord(s) })}</th>
            ))}
            <th>{t('card.capo.frame')}</th>
          </tr>
        </thead>
        <tbody>
          {capos.map((capo) => (
            <tr key={capo} className={capo === chosen ? 'chosen' : ''}>
              <th scope="row">
                <button
                  type="button"
                  className="plain"
                  onClick={() => set({ capo: capo ? String(capo) : '' })}
                >
                  {capo}
                </button>
              </th>
              {shapes.map((s, i) => (
                <td key={i}>{names.chord(transposeChord(s, capo, flatsAt(s, capo)))}</td>
              ))}
              <td>
                {t('shapes.mm', { mm: frame(capo) })}
                {capo > HIGHEST_CAPO ? ' *' : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>{t('card.capo.pianist', { capo: chosen, semitones: chosen })}</p>
      <ul className="soft">
        <li>{t('card.capo.high', { fret: HIGHEST_CAPO })}</li>
        <li>{t('card.capo.sharp')}</li>
      </ul>
    </section>
  )
}

/** Sounding chords are spelled as keys with few signs are: B flat, E flat, A flat, and F sharp minor, C sharp minor. */
function flatsAt(shape: ChordReading, capo: number): boolean {
  const name = transposeChord(shape, capo, false).root
  const minor = shape.quality.startsWith('m') && !shape.quality.startsWith('maj')
  if (name.alter <= 0) return false
  return minor ? name.step === 'A' || name.step === 'D' : name.step !== 'F'
}
