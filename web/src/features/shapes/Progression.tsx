import { present } from '@velvet-porch/core/invariant'
import { Alert, Button, Checkbox, Group, TextInput } from '@mantine/core'
import { IconPrinter } from '@tabler/icons-react'
import { useDebouncedCallback } from '@mantine/hooks'
import { nearestChord, transposeChord, type ChordReading } from '@velvet-porch/core/music'
import { fretsText, fullCapo, type ProgressionFilters } from '@velvet-porch/core/chords'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { LeadChoice, type Lead } from './LeadChoice.tsx'
import { Moves } from './Moves.tsx'
import { hearShape } from '../../score/playback/playShape.ts'
import { usePath } from './shapesWork.ts'
import { useShapeFilters } from './useShapeFilters.ts'
import { ShapeFilterTools } from './ShapeFilterTools.tsx'
import css from './Progression.module.css'
import shapesCss from './shapes.module.css'
import { useInstrumentText } from '../../ui/instrument/useInstrumentText.ts'

/** The most chords that a progression may have here. */
const LONGEST = 64

/** A row of chords typed, and the shapes that take the hand through them with the least work. */
export function Progression({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const { setup, set } = instrument
  const [params] = useSearchParams()
  const typed = params.get('chords') ?? 'C Am F G'
  const asked = params.get('lead')
  const lead: Lead | undefined = asked === 'melody' || asked === 'bass' ? asked : undefined
  const [draft, setDraft] = useState(typed)
  const commit = useDebouncedCallback((text: string) => set({ chords: text }), 350)
  const words = useMemo(
    () =>
      typed
        .split(/[\s|,]+/)
        .filter(Boolean)
        .slice(0, LONGEST),
    [typed],
  )
  const readings = useMemo(() => words.map((w) => names.readChord(w)), [words, names])
  const chords = useMemo(
    () => readings.flatMap((r): ChordReading[] => (r.kind === 'chord' ? [r.chord] : [])),
    [readings],
  )
  const wrong = words.filter((_, i) => readings[i]!.kind !== 'chord')
  const filterState = useShapeFilters()
  const filters = useMemo(
    (): ProgressionFilters => ({ ...filterState.filters, ...(lead ? { lead } : {}) }),
    [filterState.filters, lead],
  )
  const path = usePath(setup, chords, filters)
  const steps = path.data ?? []
  const capo = fullCapo(setup) ?? 0
  const [moves, setMoves] = useState(true)
  const facts = useInstrumentText(instrument)
  const ways = steps.reduce((sum, s) => sum + (s.change?.mm ?? 0), 0)
  return (
    <div className={css.progression}>
      <header className={css['sheet-head']}>
        <h1>{words.join('  ')}</h1>
        <p>{facts}</p>
      </header>
      <div className="no-print">
        <TextInput
          size="lg"
          className={shapesCss['chord-input']}
          label={t('path.chords')}
          value={draft}
          spellCheck={false}
          onChange={(event) => {
            setDraft(event.currentTarget.value)
            commit(event.currentTarget.value)
          }}
        />
        <LeadChoice lead={lead} onLead={(value) => set({ lead: value ?? '' })} />
        <ShapeFilterTools state={filterState} set={set} />
      </div>
      {wrong.map((w) => (
        <Alert key={w} color="lamp" my="xs" role="alert">
          {nearestChord(names.letters(w))
            ? t('path.unknownNear', { text: w, chord: present(nearestChord(names.letters(w))) })
            : t('shapes.unknownStart', { text: w })}
        </Alert>
      ))}
      {chords.length > 0 && path.data && steps.length === 0 ? (
        <Alert color="lamp" my="xs" role="alert">
          {t('path.nothing')}
        </Alert>
      ) : null}
      {steps.length > 0 ? (
        <Group className="no-print" gap="sm">
          <p data-testid="path-says">{t('path.says', { count: steps.length, mm: Math.round(ways) })}</p>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPrinter size={15} />}
            onClick={() => window.print()}
          >
            {t('path.print')}
          </Button>
          <Checkbox
            size="xs"
            label={t('path.withMoves')}
            checked={moves}
            onChange={(event) => setMoves(event.currentTarget.checked)}
          />
        </Group>
      ) : null}
      <ol className={shapesCss.path}>
        {steps.map((s, i) => (
          <li key={i}>
            <button
              type="button"
              className="shape-pick"
              data-frets={fretsText(s.shape.frets)}
              onClick={() => hearShape(setup, s.shape.frets, 'strum')}
            >
              <b>{names.chord(capo > 0 ? transposeChord(s.chord, -capo, false) : s.chord)}</b>
              <ChordBox setup={setup} frets={s.shape.frets} fingers={s.shape.fingers} chord={s.chord} />
            </button>
            {s.change && moves ? <Moves change={s.change} /> : null}
          </li>
        ))}
      </ol>
    </div>
  )
}
