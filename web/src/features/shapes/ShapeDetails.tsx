import { Button, Group, Menu } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import {
  chordText,
  mod12,
  spellInChord,
  transposeChord,
  withOctave,
  pitchIn,
  type ChordReading,
} from '@velvet-porch/core/music'
import {
  pitchAt,
  spanOf,
  type InstrumentKind,
  type LeftFinger,
  type Setup,
} from '@velvet-porch/core/instrument'
import { fingeringReasons, fingeringsOf } from '@velvet-porch/core/hand'
import {
  barresOf,
  freeFingersOf,
  fullCapo,
  heardIfAllRing,
  openStringsAtRisk,
  silentStrings,
  stretchOf,
  type Shape,
  type SilentString,
} from '@velvet-porch/core/chords'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { useShelf } from '../../state/useShelf.ts'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { degreeLabel } from '../../ui/chordBox/degreeLabel.ts'
import { FingeringWords } from './FingeringWords.tsx'
import { pinShape } from '../../state/pinShape.ts'
import { notePinned } from '../../state/tastes.ts'
import { hearShape } from '../../score/playback/playShape.ts'
import { SameNotesList } from './SameNotesList.tsx'
import css from './ShapeDetails.module.css'

interface Props {
  readonly setup: Setup
  readonly kind: InstrumentKind
  readonly shape: Shape
  readonly chord: ChordReading
  /** Keeps this shape beside the next one for comparison. */
  readonly onHold?: () => void
}

/** One shape explained: strings, mutes, risks, hand, fingerings, other grips for the same notes. */
export function ShapeDetails({ setup, kind, shape, chord, onHold }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const fingerings = fingeringsOf(setup, shape.frets, setup.player, 3)
  const [fingers, setFingers] = useState<readonly LeftFinger[]>(shape.fingers)
  const capo = fullCapo(setup) ?? 0
  const silent = silentStrings(setup, shape.frets, fingers)
  const risks = openStringsAtRisk(shape.frets, fingers)
  const barres = barresOf(shape.frets, fingers)
  const heard = silent.length > 0 ? heardIfAllRing(setup, shape.frets, fingers) : undefined
  const mm = Math.round(stretchOf(setup, shape.frets, fingers))
  const used = [...new Set(fingers.filter((f): f is 1 | 2 | 3 | 4 => f !== 0 && f !== 'T'))].sort()
  const reach = used.length > 1 ? spanOf(setup.player.spans, used[0]!, used.at(-1)!) : 0
  const { family } = shape
  return (
    <div className="shape-details">
      <div className={css['shape-head']}>
        <ChordBox setup={setup} frets={shape.frets} fingers={fingers} chord={chord} size={1.35} />
        <div>
          <h2>{names.chord(capo > 0 ? transposeChord(chord, -capo, false) : chord)}</h2>
          {capo > 0 ? <div>{t('shapes.soundsAt', { capo, chord: names.chord(chord) })}</div> : null}
          <div className="soft">
            {family.kind === 'form'
              ? t(family.up > 0 ? 'shapes.family.moved' : 'shapes.family.form', {
                  form: family.form,
                  up: family.up,
                })
              : family.kind === 'across'
                ? t('shapes.family.across', { fret: family.fret })
                : t(`shapes.family.${family.kind}`)}
          </div>
          <div>{mm > 0 ? t('shapes.stretch', { mm, reach }) : t('shapes.noStretch')}</div>
          <div>{t('shapes.freeFingers', { count: freeFingersOf(fingers) })}</div>
        </div>
      </div>
      <Group gap={6} my={8}>
        <Button size="compact-sm" onClick={() => hearShape(setup, shape.frets, 'strum')}>
          {t('shapes.strum')}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => hearShape(setup, shape.frets, 'pick')}>
          {t('shapes.pick')}
        </Button>
        {onHold ? (
          <Button size="compact-sm" variant="default" onClick={onHold}>
            {t('shapes.hold')}
          </Button>
        ) : null}
        {kind === 'guitar' ? <PinMenu setup={setup} shape={shape} fingers={fingers} chord={chord} /> : null}
      </Group>
      <table className={css['string-table']}>
        <thead>
          <tr>
            <th>{t('shapes.column.string')}</th>
            <th>{t('shapes.column.fret')}</th>
            <th>{t('shapes.column.finger')}</th>
            <th>{t('shapes.column.note')}</th>
            <th>{t('shapes.column.degree')}</th>
          </tr>
        </thead>
        <tbody>
          {shape.frets.map((fret, i) => {
            if (fret === null) return null
            const midi = pitchAt(setup, { string: i + 1, fret })
            return (
              <tr key={i}>
                <td>{i + 1}</td>
                <td>{fret === 0 ? t('shapes.open') : fret}</td>
                <td>{fingers[i] || '–'}</td>
                <td>{pitchIn(names.naming, withOctave(midi, spellInChord(chord, mod12(midi))))}</td>
                <td>{degreeLabel(chord, mod12(midi))}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <ul className={css['shape-notes']} data-testid="shape-notes">
        {barres.map((b) => (
          <li key={b.finger}>
            {t('shapes.barre', { finger: b.finger, fret: b.fret, top: b.top, low: b.low })}
          </li>
        ))}
        {silent.map((s) => (
          <li key={s.string}>
            <SilentWords silent={s} />
          </li>
        ))}
        {heard && silent.length > 1 ? <li>{t('shapes.allRing', { chord: names.chord(heard) })}</li> : null}
        {risks.map((r) => (
          <li key={`r${r.string}`}>{t('shapes.risk', { string: r.string, finger: r.finger })}</li>
        ))}
      </ul>
      {fingerings.length > 1 ? (
        <details className="reasons">
          <summary>{t('shapes.fingerings')}</summary>
          {fingerings.map((f) => (
            <div key={f.fingers.join('')} className={css.fingering}>
              <button
                type="button"
                aria-pressed={f.fingers.join() === fingers.join()}
                onClick={() => setFingers(f.fingers)}
              >
                {[...f.fingers]
                  .reverse()
                  .map((x, i) => (shape.frets[shape.frets.length - 1 - i] === null ? '×' : x || '○'))
                  .join(' ')}
              </button>
              <FingeringWords reasons={fingeringReasons(setup, shape.frets, f.fingers)} />
            </div>
          ))}
        </details>
      ) : null}
      <SameNotesList setup={setup} shape={shape} chord={chord} />
    </div>
  )
}

function SilentWords({ silent }: { silent: SilentString }) {
  const { t } = useTranslation()
  const names = useNames()
  const { string, kind, by, heard } = silent
  if (kind === 'notPlayed') return <>{t('shapes.notPlayed', { string })}</>
  return (
    <>
      {by
        ? t(`shapes.mutedBy.${by.how}`, { string, finger: by.finger })
        : t('shapes.mutedByPicking', { string })}
      {heard ? ` ${t('shapes.otherwise', { chord: names.chord(heard) })}` : ''}
    </>
  )
}

/** Pins the shape to a tune: the arranger takes it first. */
function PinMenu({
  setup,
  shape,
  fingers,
  chord,
}: {
  setup: Setup
  shape: Shape
  fingers: readonly LeftFinger[]
  chord: ChordReading
}) {
  const { t } = useTranslation()
  const names = useNames()
  const tunes = useShelf()
  const capo = fullCapo(setup)
  const name = transposeChord(chord, -(capo ?? 0), false)
  if (capo === undefined) return null
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <Button size="compact-sm" variant="default">
          {t('shapes.pin')}
        </Button>
      </Menu.Target>
      <Menu.Dropdown mah={320} style={{ overflow: 'auto' }}>
        <Menu.Label>{tunes.length > 0 ? t('shapes.pinTo') : t('shapes.noTunes')}</Menu.Label>
        {tunes.map((tune) => (
          <Menu.Item
            key={tune.id}
            onClick={() =>
              void pinShape(
                tune.id,
                name,
                setup.tuning,
                shape.frets,
                fingers,
                t('shapes.pinned', { chord: names.chord(name) }),
              ).then(() => {
                void notePinned(
                  tune,
                  { chord: chordText(name), tuning: setup.tuning, frets: shape.frets, fingers },
                  t('taste.firstName'),
                )
                notifications.show({
                  message: t('shapes.pinnedTo', { chord: names.chord(name), tune: tune.title }),
                })
              })
            }
          >
            {tune.title}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}
