import {
  Checkbox,
  Chip,
  Group,
  RangeSlider,
  SegmentedControl,
  Select,
  Stack,
  Text,
  TextInput,
} from '@mantine/core'
import { transposeKey } from '@velvet-porch/core/music'
import { highestCapo, namedTunings } from '@velvet-porch/core/instrument'
import { LEVELS, STYLES, type Level, type Style, type TuneDoc } from '@velvet-porch/core/document'
import {
  ALL_SHIFTS,
  PARTNERS,
  VOICE_TYPES,
  type FitOption,
  type RangeFault,
  type VoiceRange,
  type VoiceType,
} from '@velvet-porch/core/arrange'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { Conditions } from './fitConditions.ts'
import { RecordingPitchPanel } from './RecordingPitchPanel.tsx'
import { SingerRange } from './SingerRange.tsx'

interface Props {
  readonly tune: TuneDoc
  readonly conditions: Conditions
  readonly onConditions: (next: Conditions) => void
  /** True where the tune has an arrangement whose style can be taken. */
  readonly arranged: boolean
  readonly voice: VoiceRange | undefined
  readonly fault: RangeFault | undefined
  readonly chosen: FitOption | undefined
  readonly player: string
}

/** The conditions, and how some of them are changed. */
interface PartProps {
  readonly conditions: Conditions
  readonly set: (next: Partial<Conditions>) => void
}

/** Who plays and who sings, and what is allowed. */
export const FitConditions = memo(function FitConditions(props: Props) {
  const { tune, conditions, onConditions, arranged, voice, fault, chosen, player } = props
  const set = (next: Partial<Conditions>) => onConditions({ ...conditions, ...next })
  const part = { conditions, set }
  return (
    <Stack gap={10} className="fit-conditions">
      <WhoPlays {...part} arranged={arranged} player={player} />
      <WhichKey {...part} tune={tune} />
      <WhoSings {...part} tune={tune} voice={voice} fault={fault} chosen={chosen} />
      <Partners {...part} />
    </Stack>
  )
})

function WhoPlays({ conditions: c, set, arranged, player }: PartProps & Pick<Props, 'arranged' | 'player'>) {
  const { t } = useTranslation()
  const highest = Math.min(9, highestCapo(c.instrument))
  return (
    <section>
      <h2>{t('fit.plays')}</h2>
      <Text size="xs" c="dimmed">
        {t('fit.hand', { name: player || t('instrument.adult') })}
      </Text>
      <Select
        size="xs"
        label={t('instrument.kind')}
        allowDeselect={false}
        value={c.instrument}
        onChange={(v) =>
          v &&
          set({
            instrument: v,
            tunings: namedTunings(v)
              .map((n) => n.id)
              .slice(0, 1),
            ...(v === 'mandolin' && c.style !== 'bench' ? { style: 'flatpicked-lead' as const } : {}),
          })
        }
        data={(['guitar', 'mandolin'] as const).map((k) => ({
          value: k,
          label: t(`instrument.kinds.${k}`),
        }))}
      />
      <Select
        size="xs"
        label={t('arrange.style')}
        allowDeselect={false}
        value={c.style}
        onChange={(v) => v && set({ style: v as Style | 'bench' })}
        data={[
          ...(arranged ? [{ value: 'bench', label: t('fit.asOnBench') }] : []),
          ...STYLES.map((s) => ({ value: s, label: t(`arrange.styles.${s}`) })),
        ]}
      />
      {c.style === 'bench' ? null : (
        <SegmentedControl
          mt={6}
          size="xs"
          fullWidth
          aria-label={t('arrange.level')}
          value={String(c.level)}
          onChange={(v) => set({ level: Number(v) as Level })}
          data={LEVELS.map((l) => ({ value: String(l), label: String(l) }))}
        />
      )}
      <Checkbox.Group
        label={t('fit.tunings')}
        size="xs"
        mt={6}
        value={[...c.tunings]}
        onChange={(v) => set({ tunings: v })}
      >
        <Group gap={6} mt={4}>
          {namedTunings(c.instrument).map((n) => (
            <Checkbox key={n.id} size="xs" value={n.id} label={t(`instrument.tunings.${n.id}`)} />
          ))}
        </Group>
      </Checkbox.Group>
      <Text size="xs" fw={500} mt={6} id="fit-capo">
        {c.capo[1] === 0 ? t('fit.capoNone') : t('fit.capoRange', { from: c.capo[0], to: c.capo[1] })}
      </Text>
      <RangeSlider
        size="sm"
        min={0}
        max={highest}
        minRange={0}
        step={1}
        label={null}
        thumbFromLabel={t('fit.capoFrom')}
        thumbToLabel={t('fit.capoTo')}
        value={[Math.min(c.capo[0], highest), Math.min(c.capo[1], highest)]}
        onChange={(capo) => set({ capo })}
      />
    </section>
  )
}

function WhichKey({ conditions: c, set, tune }: PartProps & Pick<Props, 'tune'>) {
  const { t } = useTranslation()
  const names = useNames()
  const key = tune.measures[0]!.key
  const keyName = (shift: number) => names.key(transposeKey(key, shift))
  const shifts = [...ALL_SHIFTS].sort((a, b) => a - b)
  return (
    <section>
      <h2>{t('fit.key')}</h2>
      <Select
        size="xs"
        label={t('fit.allowed')}
        allowDeselect={false}
        value={String(c.keys)}
        onChange={(v) => v && set({ keys: v === 'any' ? 'any' : Number(v) })}
        data={[
          { value: 'any', label: t('fit.anyKey') },
          ...shifts.map((s) => ({ value: String(s), label: t('fit.only', { key: keyName(s) }) })),
        ]}
      />
      <Select
        size="xs"
        label={t('fit.wanted')}
        allowDeselect={false}
        value={String(c.wanted)}
        onChange={(v) => v !== null && set({ wanted: Number(v) })}
        data={shifts.map((s) => ({
          value: String(s),
          label: s === 0 ? t('fit.ownKey', { key: keyName(0) }) : keyName(s),
        }))}
      />
      <RecordingPitchPanel tune={tune} onWanted={(wanted) => set({ wanted })} />
    </section>
  )
}

function WhoSings({
  conditions: c,
  set,
  tune,
  voice,
  fault,
  chosen,
}: PartProps & Pick<Props, 'tune' | 'voice' | 'fault' | 'chosen'>) {
  const { t } = useTranslation()
  return (
    <section>
      <h2>{t('fit.sings')}</h2>
      <Select
        size="xs"
        label={t('fit.voice.label')}
        description={t('fit.voice.rough')}
        allowDeselect={false}
        value={c.voice}
        onChange={(v) => v && set({ voice: v })}
        data={[
          { value: 'none', label: t('fit.voice.none') },
          { value: 'typed', label: t('fit.voice.typed') },
          ...(Object.keys(VOICE_TYPES) as VoiceType[]).map((v) => ({
            value: v,
            label: t(`fit.voice.types.${v}`),
          })),
        ]}
      />
      {c.voice === 'typed' ? (
        <TextInput
          size="xs"
          label={t('fit.voice.range')}
          placeholder="A3-D5"
          value={c.range}
          error={
            fault
              ? fault.kind === 'upsideDown'
                ? t('fit.voice.upsideDown', { low: fault.low, high: fault.high })
                : t('fit.voice.unreadable')
              : undefined
          }
          onChange={(e) => set({ range: e.currentTarget.value })}
        />
      ) : null}
      {voice ? <SingerRange tune={tune} voice={voice} option={chosen} /> : null}
    </section>
  )
}

function Partners({ conditions: c, set }: PartProps) {
  const { t } = useTranslation()
  return (
    <section>
      <h2>{t('fit.partners')}</h2>
      <Chip.Group multiple value={[...c.partners]} onChange={(v) => set({ partners: v })}>
        <Group gap={4}>
          {PARTNERS.map((p) => (
            <Chip key={p} value={p} size="xs" variant="outline">
              {t(`fit.partner.${p}`)}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
    </section>
  )
}
