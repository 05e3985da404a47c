import { Anchor } from '@mantine/core'
import type { Style } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'

/** Where the hand follows chord shapes, or the bar its way: how to have it otherwise. */
export function BackingHint({ style }: { style: Style }) {
  const { t } = useTranslation()
  if (style === 'bottleneck') return <p className="soft">{t('accompany.bottleneck')}</p>
  return (
    <p className="soft">
      {t('accompany.shapes')}{' '}
      <Anchor component={Link} to="/shapes">
        {t('accompany.shapesLink')}
      </Anchor>
      .
    </p>
  )
}
