import { Anchor } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'

/** Where the hand follows chord shapes: how to have another one. */
export function BackingHint() {
  const { t } = useTranslation()
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
