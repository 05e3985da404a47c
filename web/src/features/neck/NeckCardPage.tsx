import { SegmentedControl } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { InstrumentBar } from '../../ui/instrument/InstrumentBar.tsx'
import { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useInstrumentText } from '../../ui/instrument/useInstrumentText.ts'
import { Printable } from '../../ui/Printable.tsx'
import { CapoCard } from './CapoCard.tsx'
import { HarmonicsMap } from './HarmonicsMap.tsx'
import { RootsCard } from './RootsCard.tsx'
import { ScaleMap } from './ScaleMap.tsx'
import { TuningCard } from './TuningCard.tsx'

const CARDS = ['capo', 'tuning', 'scale', 'harmonics', 'roots'] as const
type Card = (typeof CARDS)[number]

/** What teachers look up: capo, tuning, scales and safe frets, harmonics, roots. */
export function NeckCardPage() {
  const { t } = useTranslation()
  const instrument = useInstrument()
  const [params] = useSearchParams()
  const asked = params.get('card')
  const card: Card = CARDS.find((c) => c === asked) ?? 'capo'
  return (
    <div className="reference">
      <div className="reference-title no-print">
        <h1>{t('card.title')}</h1>
        <SegmentedControl
          aria-label={t('card.which')}
          data={CARDS.map((c) => ({ value: c, label: t(`card.name.${c}`) }))}
          value={card}
          onChange={(value) => instrument.set({ card: value })}
        />
      </div>
      <div className="no-print">
        <InstrumentBar instrument={instrument} />
      </div>
      <Printable title={t(`card.name.${card}`)} note={useInstrumentText(instrument)} label={t('card.print')}>
        {card === 'capo' ? <CapoCard instrument={instrument} /> : null}
        {card === 'tuning' ? <TuningCard instrument={instrument} /> : null}
        {card === 'scale' ? <ScaleMap instrument={instrument} /> : null}
        {card === 'harmonics' ? <HarmonicsMap instrument={instrument} /> : null}
        {card === 'roots' ? <RootsCard instrument={instrument} /> : null}
      </Printable>
    </div>
  )
}
