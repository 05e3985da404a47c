import { fretsText } from '@velvet-porch/core/chords'
import type { ChordReading } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import type { Shape } from '@velvet-porch/core/chords'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { hearShape } from '../../score/playback/playShape.ts'
import { useSameNotes } from './shapesWork.ts'
import css from './SameNotesList.module.css'

/** Other grips for the same notes, the easiest first; looked for when opened. */
export function SameNotesList({
  setup,
  shape,
  chord,
}: {
  setup: Setup
  shape: Pick<Shape, 'frets'>
  chord: ChordReading | undefined
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const same = useSameNotes(setup, open ? shape.frets : undefined)
  const groups = [
    { key: 'exact', shapes: same.data?.exact ?? [] },
    { key: 'alike', shapes: (same.data?.alike ?? []).slice(0, 12) },
  ] as const
  return (
    <details className="reasons" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{t('shapes.same.title')}</summary>
      {groups.map(({ key, shapes }) => (
        <div key={key}>
          <p className="soft">{shapes.length > 0 ? t(`shapes.same.${key}`) : t(`shapes.same.${key}None`)}</p>
          <div className={css['small-boxes']}>
            {shapes.map((s) => (
              <button
                key={s.frets.join()}
                type="button"
                className="shape-pick"
                data-same={fretsText(s.frets)}
                onClick={() => hearShape(setup, s.frets, 'strum')}
              >
                <ChordBox setup={setup} frets={s.frets} fingers={s.fingers} chord={chord} size={0.72} />
                <span>{t('shapes.mm', { mm: Math.round(s.stretchMm) })}</span>
              </button>
            ))}
          </div>
        </div>
      ))}
    </details>
  )
}
