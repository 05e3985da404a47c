import { Select } from '@mantine/core'
import {
  highestCapo,
  INSTRUMENTS,
  namedTunings,
  tuningId,
  type InstrumentKind,
} from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import type { Settings } from './settings.ts'
import type { BenchArranger } from './useArranger.ts'

/** Instruments that the arranger writes for. */
const KINDS: readonly InstrumentKind[] = ['guitar', 'mandolin']

/** What is played: instrument, tuning, capo. */
export function InstrumentTools({ settings, arranger }: { settings: Settings; arranger: BenchArranger }) {
  const { t } = useTranslation()
  const { instrument } = settings
  const tunings = namedTunings(instrument)
  const highest = Math.min(9, highestCapo(instrument))
  const set = (next: Partial<Settings>, label: string) => void arranger.choose(label, () => next)
  return (
    <>
      <Select
        size="xs"
        w={86}
        aria-label={t('instrument.kind')}
        value={instrument}
        allowDeselect={false}
        onChange={(v) => {
          if (v === null) return
          const kind = v
          set(
            {
              instrument: kind,
              tuning: INSTRUMENTS[kind].usual,
              capo: Math.min(settings.capo, highestCapo(kind)),
              locks: [],
            },
            t('arrange.command.instrument', { to: t(`instrument.kinds.${kind}`) }),
          )
        }}
        data={KINDS.map((k) => ({ value: k, label: t(`instrument.kinds.${k}`) }))}
      />
      <Select
        size="xs"
        w={104}
        aria-label={t('instrument.tuning')}
        value={tuningId(instrument, settings.tuning) ?? null}
        allowDeselect={false}
        onChange={(v) => {
          const named = tunings.find((n) => n.id === v)
          if (named)
            set(
              { tuning: named.tuning, locks: [] },
              t('arrange.command.tuning', { to: t(`instrument.tunings.${named.id}`) }),
            )
        }}
        data={tunings.map((n) => ({ value: n.id, label: t(`instrument.tunings.${n.id}`) }))}
      />
      <Select
        size="xs"
        w={90}
        aria-label={t('arrange.capo')}
        value={String(settings.capo)}
        allowDeselect={false}
        onChange={(v) =>
          v !== null && set({ capo: Number(v), locks: [] }, t('arrange.command.capo', { to: v }))
        }
        data={Array.from({ length: highest + 1 }, (_, c) => ({
          value: String(c),
          label: c === 0 ? t('arrange.noCapo') : t('arrange.capoAt', { capo: c }),
        }))}
      />
    </>
  )
}
