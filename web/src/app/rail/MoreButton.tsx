import { IconDots } from '@tabler/icons-react'
import type { ComponentProps } from 'react'
import { useTranslation } from 'react-i18next'
import css from './Rail.module.css'

/** On a phone: opens what its bar has no room for. */
export function MoreButton(props: ComponentProps<'button'>) {
  const { t } = useTranslation()
  return (
    <button {...props} type="button" className={`${css.stage} ${css.more}`}>
      <IconDots className={css.icon} size={21} stroke={1.7} aria-hidden />
      {t('rail.more')}
    </button>
  )
}
