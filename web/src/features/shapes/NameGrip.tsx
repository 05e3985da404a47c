import { Button, Group, TextInput } from '@mantine/core'
import { hertz, mod12, pitchClass, pitchIn, spellInChord } from '@velvet-porch/core/music'
import { lastFret, pitchAt, samePitchPlaces, type Place, type Setup } from '@velvet-porch/core/instrument'
import { fingeringsOf } from '@velvet-porch/core/hand'
import { fretsText, checkClaim, fingeredShape, nameShape, readClaim } from '@velvet-porch/core/chords'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { LongNeck, type NeckMark } from '../../score/neck/LongNeck.tsx'
import { useNames } from '../../ui/names/useNames.ts'
import { player } from '../../score/playback/player.ts'
import { ShapeDetails } from './ShapeDetails.tsx'
import css from './NameGrip.module.css'
import shapesCss from './shapes.module.css'

/** Places put on the neck, and what they are called. */
export function NameGrip({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const { setup, set, kind } = instrument
  const [params] = useSearchParams()
  const frets = readFrets(setup, params.get('places'))
  const [last, setLast] = useState<Place>()
  const called = nameShape(setup, frets)
  const fingering = fingeringsOf(setup, frets, setup.player, 1)[0]
  const chord = called[0]?.sounding
  const root = chord ? pitchClass(chord.root) : -1
  const marks = frets.map((fret, i): NeckMark => {
    const string = i + 1
    if (fret === null) return { string, fret: 0, label: '', look: 'silent' }
    const midi = pitchAt(setup, { string, fret })
    return {
      string,
      fret,
      label: chord ? names.note(spellInChord(chord, mod12(midi))) : names.pitch(midi).replace(/\d$/, ''),
      look: mod12(midi) === root ? 'root' : 'tone',
    }
  })
  const toggle = (place: Place) => {
    setLast(place)
    void player.pluck(place.string, hertz(pitchAt(setup, place)))
    set((latest) => {
      const next = readFrets(setup, latest.get('places')).map((f, i) =>
        i + 1 === place.string ? (f === place.fret ? null : place.fret) : f,
      )
      return {
        places: next.some((f) => f !== null) ? fretsText(next) : '',
      }
    })
  }
  const shape = fingering && chord ? fingeredShape(setup, chord, frets, fingering) : undefined
  return (
    <div className="shapes">
      <div className="shapes-main">
        <p className="soft">{t('name.hint')}</p>
        <LongNeck setup={setup} marks={marks} label={t('name.neck')} onPlace={toggle} />
        <Group my="sm" gap="xs">
          <Button size="compact-sm" variant="default" onClick={() => set({ places: '' })}>
            {t('name.clear')}
          </Button>
        </Group>
        <div data-testid="names" aria-live="polite">
          {called.length > 0 ? (
            <>
              <h2 className={css['grip-name']}>
                {names.chord(called[0]!.shape)}
                {called[0]!.shape.root.step !== called[0]!.sounding.root.step ||
                called[0]!.shape.root.alter !== called[0]!.sounding.root.alter ? (
                  <small> {t('name.sounds', { chord: names.chord(called[0]!.sounding) })}</small>
                ) : null}
              </h2>
              {called.length > 1 ? (
                <p>
                  {t('name.also', {
                    names: called
                      .slice(1, 6)
                      .map((c) => names.chord(c.shape))
                      .join(', '),
                  })}
                </p>
              ) : null}
            </>
          ) : (
            <h2 className={css['grip-name']}>
              {t(frets.every((f) => f === null) ? 'name.empty' : 'name.none')}
            </h2>
          )}
          {frets.some((f) => f !== null) && !fingering ? <p role="alert">{t('name.noHand')}</p> : null}
        </div>
        <ClaimCheck setup={setup} place={last} />
        {last ? <SamePitch setup={setup} place={last} /> : null}
      </div>
      <aside className={shapesCss['shapes-side']}>
        {shape && chord ? (
          <ShapeDetails key={frets.join()} setup={setup} kind={kind} shape={shape} chord={chord} />
        ) : null}
      </aside>
    </div>
  )
}

function readFrets(setup: Setup, text: string | null): (number | null)[] {
  const parts = text?.split('-') ?? []
  const strings = setup.tuning.length
  if (parts.length !== strings) return setup.tuning.map(() => null)
  return parts
    .map((p, i) => {
      const fret = /^\d+$/.test(p) ? Number(p) : null
      return fret !== null && fret <= lastFret(setup, strings - i) ? fret : null
    })
    .reverse()
}

/** Everywhere else that the pitch of the place touched last can be had. */
function SamePitch({ setup, place }: { setup: Setup; place: Place }) {
  const { t } = useTranslation()
  const names = useNames()
  const midi = pitchAt(setup, place)
  const { open, fretted, harmonics } = samePitchPlaces(setup, midi)
  const others = [...open, ...fretted].filter((p) => p.string !== place.string || p.fret !== place.fret)
  const words = [
    ...others.map((p) =>
      p.fret === 0
        ? t('name.openString', { string: p.string })
        : t('shapes.spot', { string: p.string, fret: p.fret }),
    ),
    ...harmonics.map((h) => t('name.harmonic', { string: h.string, fret: h.fret })),
  ]
  return (
    <p data-testid="same-pitch">
      {words.length > 0
        ? t('name.samePitch', { note: names.pitch(midi), places: words.join(', ') })
        : t('name.onlyHere', { note: names.pitch(midi) })}
    </p>
  )
}

/** Checks what somebody said about the place touched last. */
function ClaimCheck({ setup, place }: { setup: Setup; place: Place | undefined }) {
  const { t } = useTranslation()
  const names = useNames()
  const [text, setText] = useState('')
  if (!place) return null
  const claim = readClaim(names.letters(text))
  const verdict = claim ? checkClaim(setup, place, claim) : undefined
  const at = t('shapes.spot', { string: place.string, fret: place.fret })
  const words = () => {
    if (!text.trim()) return t('name.claim.ask', { at, note: names.pitch(pitchAt(setup, place)) })
    if (!verdict) return t('name.claim.unread')
    const note = pitchIn(names.naming, verdict.pitch)
    const degree = verdict.degree?.replaceAll('b', '♭').replaceAll('#', '♯')
    if (degree)
      return t(verdict.holds ? 'name.claim.holdsDegree' : 'name.claim.failsDegree', { at, note, degree })
    return t(verdict.holds ? 'name.claim.holds' : 'name.claim.fails', { at, note })
  }
  return (
    <div className={css.claim}>
      <TextInput
        w={220}
        label={t('name.claim.label')}
        placeholder={t('name.claim.hint')}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <p
        data-testid="claim"
        aria-live="polite"
        className={verdict && !verdict.holds ? css['claim-wrong'] : ''}
      >
        {words()}
      </p>
    </div>
  )
}
