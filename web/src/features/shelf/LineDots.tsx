import { ActionIcon, type ActionIconProps } from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import type { ComponentProps } from 'react'
import { useTranslation } from 'react-i18next'

/** Opens what can be done with the tune of that title. */
export function LineDots({
  tune,
  ...rest
}: { readonly tune: string } & ActionIconProps & Omit<ComponentProps<'button'>, 'color' | 'style'>) {
  const { t } = useTranslation()
  return (
    <ActionIcon variant="subtle" color="gray" aria-label={t('shelf.actions', { title: tune })} {...rest}>
      <IconDots size={18} />
    </ActionIcon>
  )
}
