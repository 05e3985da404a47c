import { Group, NumberInput, Select, TextInput } from '@mantine/core'
import {
  chordPitchClasses,
  degreeAbove,
  hertz,
  mod12,
  pitchClass,
  plainName,
  SCALES,
  scaleTones,
  type ChordReading,
  type NoteName,
  type PitchClass,
  type ScaleName,
} from '@velvet-porch/core/music'
import { pitchAt, scaleFrets, tonesInPosition } from '@velvet-porch/core/instrument'
import { readClaim } from '@velvet-porch/core/chords'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { LongNeck, type NeckMark } from '../../score/neck/LongNeck.tsx'
import { useNames } from '../../ui/names/useNames.ts'
import { player } from '../../score/playback/player.ts'
import { usePrefs } from '../../state/prefs.ts'
import neckCss from './neck.module.css'

const SCALE_NAMES = Object.keys(SCALES) as ScaleName[]
const ARPEGGIO = 'arpeggio'
const LAST_FRET = 12

/** A scale or arpeggio over the neck or in one position, and the frets that are safe in the key. */
export function ScaleMap({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const { labels } = usePrefs()
  const { setup, set } = instrument
  const [params] = useSearchParams()
  const keyText = params.get('key') ?? 'D'
  const scaleText = params.get('scale') ?? 'major'
  const position = Number(params.get('position') ?? 0)
  const [draft, setDraft] = useState(keyText)
  const arpeggio = scaleText === ARPEGGIO
  const reading = names.readChord(keyText)
  const chord: ChordReading | undefined = arpeggio && reading.kind === 'chord' ? reading.chord : undefined
  const claim = readClaim(names.letters(keyText))
  const tonic: NoteName | undefined = chord ? chord.root : claim?.kind === 'note' ? claim.name : undefined
  const scale = SCALE_NAMES.find((s) => s === scaleText) ?? 'major'
  const tones: readonly PitchClass[] = chord
    ? chordPitchClasses(chord)
    : tonic
      ? scaleTones(tonic, scale)
      : []
  const frets = scaleFrets(setup, tones, LAST_FRET)
  const safe = frets.filter((f) => f.outside.length === 0).map((f) => f.fret)
  const nearly = frets.filter((f) => f.outside.length === 1)
  const flats = tonic ? tonic.alter < 0 || tonic.step === 'F' : false
  const labelOf = (pc: PitchClass, finger?: number) => {
    if (labels === 'fingers' && finger !== undefined) return finger === 0 ? '○' : String(finger)
    if (labels === 'degrees' && tonic) return degreeAbove(tonic, pc).replaceAll('b', '♭')
    return names.note(plainName(pc, flats))
  }
  const look = (pc: PitchClass): NeckMark['look'] => (tonic && pc === pitchClass(tonic) ? 'root' : 'tone')
  const marks: NeckMark[] =
    position > 0
      ? tonesInPosition(setup, tones, position).map((p) => ({
          string: p.string,
          fret: p.fret,
          label: labelOf(p.pc, p.finger),
          look: look(p.pc),
        }))
      : setup.tuning.flatMap((_, i) =>
          Array.from({ length: LAST_FRET + 1 }, (_, fret) => fret).flatMap((fret): NeckMark[] => {
            const pc = mod12(pitchAt(setup, { string: i + 1, fret }))
            return tones.includes(pc) ? [{ string: i + 1, fret, label: labelOf(pc), look: look(pc) }] : []
          }),
        )
  return (
    <section className={neckCss['card-sheet']} aria-label={t('card.name.scale')}>
      <Group gap="xs" align="flex-start">
        <TextInput
          w={110}
          label={arpeggio ? t('shapes.chord') : t('card.scale.tonic')}
          value={draft}
          error={tonic ? undefined : t(arpeggio ? 'card.scale.noChord' : 'card.scale.noTonic')}
          onChange={(event) => {
            setDraft(event.currentTarget.value)
            set({ key: event.currentTarget.value })
          }}
        />
        <Select
          w={190}
          label={t('card.scale.scale')}
          data={[...SCALE_NAMES, ARPEGGIO].map((s) => ({
            value: s,
            label: t(`card.scale.names.${s as ScaleName | typeof ARPEGGIO}`),
          }))}
          value={scaleText}
          allowDeselect={false}
          onChange={(value) => set({ scale: value ?? 'major' })}
        />
        <NumberInput
          w={130}
          label={t('card.scale.position')}
          description={position > 0 ? undefined : t('card.scale.all')}
          inputWrapperOrder={['label', 'input', 'description', 'error']}
          min={0}
          max={LAST_FRET}
          clampBehavior="strict"
          allowDecimal={false}
          value={position}
          onChange={(value) => set({ position: value ? String(value) : '' })}
        />
      </Group>
      <LongNeck
        setup={setup}
        marks={marks}
        bands={position > 0 ? [] : safe}
        upTo={LAST_FRET}
        label={t('card.scale.label')}
        onPlace={(place) => void player.pluck(place.string, hertz(pitchAt(setup, place)))}
      />
      {tonic ? (
        <>
          <p data-testid="safe-frets">
            {safe.length > 0 ? t('card.scale.safe', { frets: safe.join(', ') }) : t('card.scale.noneSafe')}
          </p>
          <ul className="soft">
            {nearly.map((f) => (
              <li key={f.fret}>
                {t('card.scale.nearly', {
                  fret: f.fret,
                  string: f.outside[0]!,
                  note: names.pitch(pitchAt(setup, { string: f.outside[0]!, fret: f.fret }), flats),
                })}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  )
}
