import { Alert, Button, TextInput } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import {
  mod12,
  nearestChord,
  pitchClass,
  spellInChord,
  transposeChord,
  type ChordReading,
} from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import { fretsText, fullCapo, withAskedBass, type Folded, type Shape } from '@velvet-porch/core/chords'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { LongNeck, type NeckMark } from '../../score/neck/LongNeck.tsx'
import { useNames } from '../../ui/names/useNames.ts'
import { usePrefs } from '../../state/prefs.ts'
import { degreeLabel } from '../../ui/chordBox/degreeLabel.ts'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { Compare } from './Compare.tsx'
import { ShapeDetails } from './ShapeDetails.tsx'
import { useFound } from './shapesWork.ts'
import { useShapeFilters } from './useShapeFilters.ts'
import { ShapeFilterTools } from './ShapeFilterTools.tsx'
import { hearShape } from '../../score/playback/playShape.ts'
import css from './FindShapes.module.css'
import shapesCss from './shapes.module.css'
import { useInstrumentText } from '../../ui/instrument/useInstrumentText.ts'
import { Printable } from '../../ui/Printable.tsx'

/** A chord typed, its shapes by part of the neck, one of them explained. */
export function FindShapes({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const facts = useInstrumentText(instrument)
  const [params] = useSearchParams()
  const { setup, set } = instrument
  const typed = params.get('chord') ?? 'C'
  const [draft, setDraft] = useState(typed)
  const commit = useDebouncedCallback((text: string) => set({ chord: text.trim() }), 250)
  const reading = useMemo(() => names.readChord(typed), [names, typed])
  const filterState = useShapeFilters()
  const everything = params.get('every') === '1'
  const asked = reading.kind === 'chord' ? reading.chord : undefined
  const chord = asked && withAskedBass(asked, filterState.filters)
  const found = useFound(setup, asked, filterState.filters, everything)
  const [picked, setPicked] = useState<string>()
  const [held, setHeld] = useState<{ shape: Shape; chord: ChordReading }>()
  const zones = found.data?.zones ?? []
  const all = zones.flatMap((z) => z.rows.flatMap((r) => [r.head, ...r.variants]))
  const shape = all.find((s) => idOf(s) === picked) ?? all[0]
  const marks = useMarks(instrument, shape, chord)
  const capo = fullCapo(setup) ?? 0
  const take = (text: string) => {
    setDraft(text)
    set({ chord: text })
  }
  return (
    <div className="shapes">
      <div className="shapes-main">
        <div className={css['shapes-ask']}>
          <TextInput
            className={shapesCss['chord-input']}
            size="lg"
            label={t('shapes.chord')}
            value={draft}
            spellCheck={false}
            autoComplete="off"
            onChange={(event) => {
              setDraft(event.currentTarget.value)
              commit(event.currentTarget.value)
            }}
          />
          <ShapeFilterTools state={filterState} set={set} />
        </div>
        {chord ? (
          <p className={css['shapes-says']} data-testid="shapes-says">
            {t('shapes.says', { chord: names.chord(chord), count: found.data?.considered ?? 0 })}
            {capo > 0
              ? ` ${t('shapes.asShape', { capo, shape: names.chord(transposeChord(chord, -capo, false)) })}`
              : ''}
          </p>
        ) : (
          <UnknownChord typed={typed} onTake={take} />
        )}
        <LongNeck
          setup={setup}
          marks={marks}
          label={t('shapes.longNeck')}
          onPlace={(place) =>
            hearShape(
              setup,
              setup.tuning.map((_, i) => (i + 1 === place.string ? place.fret : null)),
              'pick',
            )
          }
        />
        {chord && found.data && zones.length === 0 ? (
          <NothingFound
            chord={chord}
            relax={found.data.relax}
            onRelax={(filter) => set({ [RELAX_PARAM[filter]]: '' })}
          />
        ) : null}
        {chord && zones.length > 0 ? (
          <Printable title={names.chord(chord)} note={facts} label={t('shapes.printSheet')}>
            {zones.map(({ zone, rows }) => (
              <Zone
                key={zone}
                zone={zone}
                rows={rows}
                setup={setup}
                chord={chord}
                picked={shape}
                onPick={(s) => setPicked(idOf(s))}
              />
            ))}
          </Printable>
        ) : null}
        {zones.length > 0 ? (
          <Button mt="md" variant="default" onClick={() => set({ every: everything ? '' : '1' })}>
            {t(everything ? 'shapes.best' : 'shapes.every')}
          </Button>
        ) : null}
      </div>
      <aside className={shapesCss['shapes-side']}>
        {shape && chord ? (
          <>
            <ShapeDetails
              key={idOf(shape)}
              setup={setup}
              kind={instrument.kind}
              shape={shape}
              chord={chord}
              onHold={() => setHeld({ shape, chord })}
            />
            {held ? (
              <Compare setup={setup} from={held} to={{ shape, chord }} onClose={() => setHeld(undefined)} />
            ) : null}
          </>
        ) : null}
      </aside>
    </div>
  )
}

/** A chord name that cannot be read, and the nearest that can. */
function UnknownChord({ typed, onTake }: { typed: string; onTake: (chord: string) => void }) {
  const { t } = useTranslation()
  const names = useNames()
  const nearest = nearestChord(names.letters(typed))
  return (
    <Alert color="lamp" my="sm" role="alert">
      {nearest ? t('shapes.unknown', { text: typed }) : t('shapes.unknownStart', { text: typed })}{' '}
      {nearest ? (
        <Button size="compact-sm" onClick={() => onTake(nearest)}>
          {t('shapes.takeNearest', { chord: nearest })}
        </Button>
      ) : null}
    </Alert>
  )
}

/** No shape passes the filters: those that could be dropped. */
function NothingFound({
  chord,
  relax,
  onRelax,
}: {
  chord: ChordReading
  relax: readonly Relaxed[]
  onRelax: (filter: Relaxed) => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  return (
    <Alert color="lamp" my="sm" role="alert">
      {t('shapes.nothing', { chord: names.chord(chord) })}{' '}
      {relax.length > 0 ? (
        relax.map((filter) => (
          <Button key={filter} size="compact-sm" mr={6} onClick={() => onRelax(filter)}>
            {t('shapes.relax', { filter: t(`shapes.filter.${RELAX_PARAM[filter]}`) })}
          </Button>
        ))
      ) : (
        <span>{t('shapes.nothingAtAll')}</span>
      )}
    </Alert>
  )
}

/** Rows of a zone that are drawn before one asks for more. */
const ROWS_AT_ONCE = 30

const RELAX_PARAM = {
  bass: 'bass',
  top: 'top',
  through: 'place',
  leave: 'leave',
  ring: 'ring',
  zone: 'zone',
  maxStretch: 'max',
  noBarre: 'nobarre',
  indexBarre: 'lying',
  freeFingers: 'free',
} as const

type Relaxed = keyof typeof RELAX_PARAM

export const idOf = (shape: Pick<Shape, 'frets'>) => shape.frets.map((f) => f ?? 'x').join('-')

interface ZoneProps {
  readonly zone: string
  readonly rows: readonly Folded<Shape>[]
  readonly setup: Parameters<typeof ChordBox>[0]['setup']
  readonly chord: ChordReading | undefined
  readonly picked: Shape | undefined
  readonly onPick: (shape: Shape) => void
}

/** The shapes of one part of the neck, a handful at a time. */
function Zone({ zone, rows, setup, chord, picked, onPick }: ZoneProps) {
  const { t } = useTranslation()
  const [unfolded, setUnfolded] = useState<string>()
  const [length, setLength] = useState(ROWS_AT_ONCE)
  const title = t('shapes.zone', { zone: zone.replace('-', '–') })
  return (
    <section className="zone" aria-label={title}>
      <h2>{title}</h2>
      <div className="zone-rows">
        {rows.slice(0, length).map((row) => (
          <ShapeRow
            key={idOf(row.head)}
            row={row}
            setup={setup}
            chord={chord}
            picked={picked}
            open={unfolded === idOf(row.head)}
            onOpen={(open) => setUnfolded(open ? idOf(row.head) : undefined)}
            onPick={onPick}
          />
        ))}
      </div>
      {rows.length > length ? (
        <button type="button" className="plain" onClick={() => setLength(length + ROWS_AT_ONCE)}>
          {t('shapes.more', { count: rows.length - length })}
        </button>
      ) : null}
    </section>
  )
}

function ShapeRow({
  row,
  setup,
  chord,
  picked,
  open,
  onOpen,
  onPick,
}: {
  row: Folded<Shape>
  setup: Parameters<typeof ChordBox>[0]['setup']
  chord: ChordReading | undefined
  picked: Shape | undefined
  open: boolean
  onOpen: (open: boolean) => void
  onPick: (shape: Shape) => void
}) {
  const { t } = useTranslation()
  const members = open ? [row.head, ...row.variants] : [row.head]
  return (
    <>
      {members.map((shape, i) => (
        <div key={idOf(shape)} className={`shape-card${i > 0 ? ' variant' : ''}`}>
          <button
            type="button"
            className="shape-pick"
            aria-pressed={picked !== undefined && idOf(picked) === idOf(shape)}
            data-frets={fretsText(shape.frets)}
            onClick={() => {
              onPick(shape)
              hearShape(setup, shape.frets, 'strum')
            }}
          >
            <ChordBox setup={setup} frets={shape.frets} fingers={shape.fingers} chord={chord} />
          </button>
          {i === 0 && row.variants.length > 0 ? (
            <button
              type="button"
              className={css['shape-more']}
              aria-expanded={open}
              onClick={() => onOpen(!open)}
            >
              {open ? t('shapes.fold') : t('shapes.variants', { count: row.variants.length })}
            </button>
          ) : null}
        </div>
      ))}
    </>
  )
}

function useMarks(
  { setup }: ReturnType<typeof useInstrument>,
  shape: Shape | undefined,
  chord: ChordReading | undefined,
): NeckMark[] {
  const { labels } = usePrefs()
  const names = useNames()
  if (!shape || !chord) return []
  return shape.frets.map((fret, i): NeckMark => {
    const string = i + 1
    if (fret === null) return { string, fret: 0, label: '', look: 'silent' }
    const midi = pitchAt(setup, { string, fret })
    const finger = shape.fingers[i]
    const label =
      labels === 'degrees'
        ? degreeLabel(chord, mod12(midi))
        : labels === 'notes' || fret === 0
          ? names.note(spellInChord(chord, mod12(midi)))
          : String(finger)
    return { string, fret, label, look: mod12(midi) === pitchClass(chord.root) ? 'root' : 'tone' }
  })
}
