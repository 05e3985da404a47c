import { Alert, Button, Chip, Group, NumberInput, SegmentedControl, Switch, Text } from '@mantine/core'
import { IconCheck, IconMicrophone, IconPlayerStopFilled } from '@tabler/icons-react'
import { A4_RANGE, tunedString, wantedHertz, wantedPitch } from '@velvet-porch/core/input/audio'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { InstrumentBar } from '../../ui/instrument/InstrumentBar.tsx'
import { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { CentsRuler } from './CentsRuler.tsx'
import { microphone } from './microphone.ts'
import { simulatedString, type SimulatedString } from './simulatedString.ts'
import { StandIn, type Pretended } from './StandIn.tsx'
import { useHeardPitch } from './useHeardPitch.ts'
import { useTunedStrings } from './useTunedStrings.ts'
import css from './tuner.module.css'

/** Tunes string by string, to any tuning and behind a capo. */
export function TunerPage() {
  const { t } = useTranslation()
  const names = useNames()
  const instrument = useInstrument()
  const { setup, capo } = instrument
  const { a4 } = usePrefs()
  const [from, setFrom] = useState<'microphone' | 'simulated'>('microphone')
  const [on, setOn] = useState(false)
  const [string, setString] = useState<number>()
  const [capoOn, setCapoOn] = useState(true)
  const settings = { a4, capoOn: capoOn && capo > 0, string: string && Math.min(string, setup.tuning.length) }
  const [pretended, setPretended] = useState<Pretended>({ string: 1, cents: -18, noise: 0 })
  const sounding = useRef<SimulatedString>({ hertz: 110, noise: 0 })
  const standIn = Math.min(pretended.string, setup.tuning.length)
  useEffect(() => {
    sounding.current = {
      hertz: wantedHertz(setup, standIn, settings) * 2 ** (pretended.cents / 1200),
      noise: pretended.noise,
    }
  })
  const source = useMemo(
    () => (!on ? undefined : from === 'microphone' ? microphone : simulatedString(() => sounding.current)),
    [on, from],
  )
  const heard = useHeardPitch(source)
  const { state, pitch } = heard
  const reading = pitch === undefined ? undefined : tunedString(setup, pitch, settings)
  const { strings: tuned, again } = useTunedStrings(
    `${setup.tuning.join()} ${setup.capo.join()} ${settings.capoOn} ${a4}`,
    setup.tuning.length,
    reading,
    heard,
  )
  const strings = setup.tuning.map((_, i) => setup.tuning.length - i)
  const fault = state !== 'off' && state !== 'asking' && state !== 'listening' ? state : undefined
  return (
    <div className="reference">
      <div className="reference-title">
        <h1>{t('tuner.title')}</h1>
        <SegmentedControl
          aria-label={t('tuner.from')}
          data={(['microphone', 'simulated'] as const).map((value) => ({
            value,
            label: t(`tuner.${value}`),
          }))}
          value={from}
          onChange={(value) => setFrom(value)}
        />
      </div>
      <InstrumentBar instrument={instrument} />
      <div className={css.tuner}>
        <Group gap="md">
          <Button
            size="md"
            leftSection={on ? <IconPlayerStopFilled size={18} /> : <IconMicrophone size={18} />}
            onClick={() => setOn(!on)}
          >
            {t(on ? 'tuner.stop' : 'tuner.listen')}
          </Button>
          <NumberInput
            w={120}
            label={t('tuner.a4')}
            min={A4_RANGE.low}
            max={A4_RANGE.high}
            suffix=" Hz"
            value={a4}
            clampBehavior="strict"
            onChange={(value) => {
              if (typeof value === 'number' && value >= A4_RANGE.low && value <= A4_RANGE.high)
                setPrefs({ a4: value })
            }}
          />
          {capo > 0 ? (
            <Switch
              label={t('tuner.capoOn', { capo })}
              checked={capoOn}
              onChange={(e) => setCapoOn(e.currentTarget.checked)}
            />
          ) : null}
        </Group>
        {again ? <Alert color="yellow">{t('tuner.again')}</Alert> : null}
        {fault ? <Alert color="red">{t(`tuner.fault.${fault}`)}</Alert> : null}
        <section className={css.reading} aria-label={t('tuner.reading')}>
          <div className={css.note} data-testid="tuner-note">
            {reading ? (
              <>
                {names.pitch(reading.wanted)}
                <small>{t('tuner.string', { string: reading.string })}</small>
              </>
            ) : (
              <small>{t(state === 'listening' ? 'tuner.pluck' : on ? 'tuner.asking' : 'tuner.off')}</small>
            )}
          </div>
          <CentsRuler cents={reading?.cents} turn={reading?.turn} />
          <div className={css.words} role="status" data-testid="tuner-words">
            {reading
              ? t(`tuner.turn.${reading.turn}`, {
                  cents: Math.round(Math.abs(reading.cents)),
                  string: reading.string,
                })
              : ''}
          </div>
        </section>
        <Chip.Group
          value={string === undefined ? 'auto' : String(settings.string)}
          onChange={(value) => setString(value === 'auto' ? undefined : Number(value))}
        >
          <div className={css.strings} role="group" aria-label={t('tuner.which')}>
            <Chip value="auto">{t('tuner.auto')}</Chip>
            {strings.map((s) => (
              <Chip key={s} value={String(s)}>
                {t('tuner.one', { string: s, pitch: names.pitch(wantedPitch(setup, s, settings)) })}
                {tuned.includes(s) ? (
                  <IconCheck
                    size={15}
                    style={{ marginLeft: 5, verticalAlign: -2 }}
                    aria-label={t('tuner.done')}
                  />
                ) : null}
              </Chip>
            ))}
          </div>
        </Chip.Group>
        {tuned.length === strings.length ? <Text fw={600}>{t('tuner.allDone')}</Text> : null}
        {setup.instrument.doubling > 1 ? <Text size="sm">{t('tuner.course')}</Text> : null}
        {capo > 0 ? <Text size="sm">{t('tuner.capoPulls')}</Text> : null}
        {from === 'simulated' ? (
          <StandIn strings={strings} pretended={{ ...pretended, string: standIn }} onChange={setPretended} />
        ) : null}
        <Text size="sm" c="dimmed">
          {t('tuner.private')}
        </Text>
      </div>
    </div>
  )
}
